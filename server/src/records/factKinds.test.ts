import request from "supertest";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type MadePart, makeJob, makePart, newId, openTestApp, readingBody, type TestApp } from "../testing/testApp";

let test: TestApp;
let jobId: string;
let part: MadePart;
const [step, quote] = [newId(), newId()];
const at = "2026-11-23T11:00:00.000Z";
const by = { at, clockId: null, personId: null };

beforeAll(async () => {
  test = await openTestApp();
  jobId = await makeJob(test.app);
  part = await makePart(test.app, jobId);
  await request(test.app)
    .post(`/api/jobs/${jobId}/teardown-steps`)
    .send({ id: step, kind: "screws", count: 4, size: null, place: null, photoId: null, doneAt: at, personId: null })
    .expect(201);
  await send("quotes", { id: quote, taxRatio: 0.19, validDays: 14, note: null, lines: [labour], ...by }).expect(201);
});
afterAll(() => test.close());

const send = (path: string, body: object, of = jobId) => request(test.app).post(`/api/jobs/${of}/${path}`).send(body);
const labour = { kind: "labour", words: null, quantity: 45, unitMinor: 100 };
const act = { kind: "outcome", subjectId: null, note: null };
const answer = { quoteId: quote, limitMinor: null, byWhom: "the owner", way: "phone" };
const event = { kind: "voltage_measured", volts: 3.2, resistanceOhms: null, drainItem: null, isMeterProved: true };

it("answers each fact with its own row as it is stored, whatever stands beside it", async () => {
  const stored = async (path: string, body: object) => {
    const id = newId();
    const told = (await send(path, { id, ...body, ...by }).expect(201)).body;
    expect(told).toMatchObject({ id, ...body, at });
    expect(told).not.toHaveProperty("jobId");
    return told.sequence as string;
  };
  const sequences = [
    await stored("acts", { ...act, word: "declined" }),
    await stored("acts", { ...act, word: "repaired" }),
    await stored("quotes", { taxRatio: 0.19, validDays: 30, note: null, lines: [labour] }),
    await stored("quote-answers", { ...answer, word: "no" }),
    await stored("quote-answers", { ...answer, word: "yes" }),
    await stored("teardown-returns", { stepId: step, countIn: 3 }),
    await stored("teardown-returns", { stepId: step, countIn: 4 }),
    await stored("charge-events", { ...event, storeId: null }),
  ].map(Number);
  expect(sequences.every((one) => one > 0)).toBe(true);
});

it("answers a tick with the parts of its own places alone", async () => {
  const other = await makePart(test.app, jobId, "C2");
  const items = [{ id: newId(), positionId: other.positionId, fittedPartId: null, stripeDegrees: 90 }];
  const told = (await send("ticks", { id: newId(), step: "removed", isDone: true, items, ...by }).expect(201)).body;
  expect(told.ticks).toMatchObject([{ ...items[0], step: "removed", isDone: true }]);
  expect(told.fittedParts.map((one: { positionId: string }) => one.positionId)).toEqual([other.positionId]);
});

it("refuses what stands on another job, and says what it misses", async () => {
  const other = await makeJob(test.app);
  const refused = async (path: string, body: object) =>
    (await send(path, { id: newId(), ...body, ...by }, other).expect(409)).body.detail;
  expect(await refused("quote-answers", { ...answer, word: "yes" })).toBe(
    "The quote that was answered is not on this job.",
  );
  expect(await refused("teardown-returns", { stepId: step, countIn: 3 })).toBe(
    "This step of taking apart is not on the job.",
  );
  expect(await refused("charge-events", { ...event, storeId: newId() })).toBe("The energy store is not on this job.");
  const told = await send("readings", { ...readingBody(part), clockId: null, supersedesId: newId() });
  expect([told.status, told.body.detail]).toEqual([409, "The reading to be corrected is not on this job."]);
});
