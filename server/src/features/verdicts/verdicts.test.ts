import type { BoardTypeLine, JobDetail, ToldRuleChange } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type MadePart, makeJob, makePart, newId, openTestApp, readingBody, type TestApp } from "../../testing/testApp";

let test: TestApp;
let jobId: string;
let part: MadePart;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());
beforeEach(async () => {
  jobId = await makeJob(test.app);
  part = await makePart(test.app, jobId);
});

const detail = async (id = jobId) => (await request(test.app).get(`/api/jobs/${id}`).expect(200)).body as JobDetail;
const log = (body: object, id = jobId) => request(test.app).post(`/api/jobs/${id}/readings`).send(body).expect(201);
const overrule = (body: object, id = jobId) => request(test.app).post(`/api/jobs/${id}/overrules`).send(body);
const word = (verdict: string | null, more: object = {}) => ({
  id: newId(),
  fittedPartId: part.partId,
  verdict,
  reason: "swapped against a good one",
  at: "2026-11-23T11:00:00.000Z",
  clockId: null,
  personId: null,
  ...more,
});

describe("an overrule", () => {
  it("is kept once under retry, and taken back by another", async () => {
    const body = word("sound");
    await overrule(body).expect(201);
    await overrule(body).expect(200);
    await overrule(word(null)).expect(201);
    expect((await detail()).overrules.map((one) => one.verdict)).toEqual(["sound", null]);
  });
  it("needs a reason, a known word and a part of this job, or changes nothing", async () => {
    await overrule(word("sound", { reason: " " })).expect(422);
    await overrule(word("fine")).expect(422);
    const otherJob = await makeJob(test.app);
    await overrule(word("sound"), otherJob).expect(409);
    expect((await detail()).overrules).toEqual([]);
  });
});

describe("the summary of the verdict", () => {
  const put = (version: number, text: string | null) =>
    request(test.app).put(`/api/jobs/${jobId}/verdict-summary`).send({ writeId: newId(), version, text });
  it("is a person's words until they are taken back, from the version it came from", async () => {
    const { job } = await detail();
    await put(job.version, "Two outputs dried; the rest is sound.").expect(200);
    await put(job.version, "stale").expect(409);
    const kept = (await detail()).job;
    expect(kept.verdictSummary).toBe("Two outputs dried; the rest is sound.");
    await put(kept.version, "  ").expect(200);
    expect((await detail()).job.verdictSummary).toBeNull();
  });
});

describe("a changed rule of judging", () => {
  const change = (key: string, value: unknown, version = 0) =>
    request(test.app).post("/api/house-rules/changes").send({
      id: newId(),
      key,
      value,
      reason: null,
      changedAt: new Date().toISOString(),
      version,
      clockId: null,
      personId: null,
    });
  it("judges open jobs anew and says which verdicts turned, then and in the history", async () => {
    // 2.5 times typical with 82 % of its C: undecided to the usual school, failed to the strict one.
    await log(readingBody(part, { value: 0.08, circuitState: "out" }));
    const farads = { quantity: "capacitance", value: 820e-6, frequencyHertz: 120, circuitState: "out" };
    await log(readingBody(part, farads));
    const told = (await change("judge.school", "ten").expect(201)).body as ToldRuleChange;
    expect(told.effects.find((one) => one.jobId === jobId)?.turned).toEqual([
      { designator: "C1", before: "cannot_tell", after: "failed" },
    ]);
    const history = (await request(test.app).get("/api/house-rules/changes").expect(200)).body as ToldRuleChange[];
    expect(history.at(-1)?.effects).toEqual(told.effects);
    const other = (await change("shop.warrantyMonths", 12).expect(201)).body as ToldRuleChange;
    expect(other.effects).toEqual([]);
    // A closed job keeps what it was judged by.
    const { version } = (await detail()).job;
    await request(test.app)
      .post(`/api/jobs/${jobId}/hand-over`)
      .send({
        ...{ id: newId(), version, isReopened: false, handedOverAt: "2026-11-23T12:00:00Z", warrantyMonths: 6 },
        ...{ spentMinutes: null, note: null, clockId: null, personId: null },
      })
      .expect(200);
    const back = (await change("judge.school", null, told.sequence as number).expect(201)).body as ToldRuleChange;
    expect(back.effects.find((one) => one.jobId === jobId)).toBeUndefined();
  });
});

describe("the baseline", () => {
  it("is what a known-good unit of the same board type read, never a job's own readings", async () => {
    await request(test.app)
      .post(`/api/jobs/${jobId}/board-type`)
      .send({ id: newId(), boardTypeId: null, name: "Brambix 4 board" })
      .expect(201);
    const { intakeDetails, version, ...rest } = (await detail()).job;
    const { deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, complaint, symptoms } = rest;
    const { symptomNote, priceLimitMinor, dueOn, customerName, customerContact, ownersWords } = rest;
    const values = {
      ...{ deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, complaint, symptoms, symptomNote },
      ...{ priceLimitMinor, dueOn, customerName, customerContact, ownersWords },
      intakeDetails: { ...intakeDetails, isKnownGood: true },
    };
    await request(test.app).patch(`/api/jobs/${jobId}/intake`).send({ writeId: newId(), version, values }).expect(200);
    const slip = readingBody(part, { value: 3.1, circuitState: "in_circuit" });
    await log(slip);
    await log(readingBody(part, { value: 0.031, circuitState: "in_circuit", supersedesId: slip.id }));
    const otherId = await makeJob(test.app);
    const [type] = (await request(test.app).get("/api/board-types").expect(200)).body as readonly BoardTypeLine[];
    await request(test.app)
      .post(`/api/jobs/${otherId}/board-type/use`)
      .send({ id: newId(), revisionId: type?.revisionId });
    expect((await detail(otherId)).baseline).toMatchObject([
      { designator: "C1", quantity: "esr", isInCircuit: true, typical: 0.031, isKnownGood: true, unitCount: 1 },
    ]);
    expect((await detail()).baseline).toEqual([]);
  });
});
