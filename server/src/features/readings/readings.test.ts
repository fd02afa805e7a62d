import type { JobDetail, Problem } from "@pale-cap/contract";
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

const log = (body: object, job = jobId) => request(test.app).post(`/api/jobs/${job}/readings`).send(body);
const stored = async () => ((await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail).readings;

describe("readings", () => {
  it("are stored once under a retry storm, with the server's own time of receipt", async () => {
    const body = readingBody(part);
    const answers = await Promise.all(Array.from({ length: 8 }, () => log(body)));
    expect(answers.filter((one) => one.status === 201)).toHaveLength(1);
    expect(answers.filter((one) => one.status === 200)).toHaveLength(7);
    const rows = await stored();
    expect(rows).toHaveLength(1);
    expect(rows[0]).toMatchObject({ value: 0.04, measuredAt: body.measuredAt, receivedAt: "2026-11-23T12:00:00.000Z" });
  });

  it("keep numbers exactly as they were sent", async () => {
    for (const value of [1e-9, 0.1 + 0.2, 123456.789]) await log(readingBody(part, { value })).expect(201);
    expect((await stored()).map((row) => row.value).sort()).toEqual([1e-9, 0.1 + 0.2, 123456.789].sort());
  });

  it("are never changed: a correction supersedes, and only once", async () => {
    const slip = readingBody(part, { value: 4 });
    await log(slip).expect(201);
    await log(readingBody(part, { supersedesId: slip.id })).expect(201);
    expect(await stored()).toHaveLength(2);
    const again = await log(readingBody(part, { supersedesId: slip.id })).expect(409);
    expect((again.body as Problem).errors[0]?.path).toBe("supersedesId");
    expect(await stored()).toHaveLength(2);
  });

  it("may be withdrawn without a value, but not logged without one", async () => {
    const slip = readingBody(part);
    await log(slip).expect(201);
    await log(readingBody(part, { value: null })).expect(422);
    await log(readingBody(part, { value: null, isWithdrawn: true, supersedesId: slip.id })).expect(201);
  });

  it("cannot be aimed at another job's part, net or reading", async () => {
    const otherJob = await makeJob(test.app);
    const other = await makePart(test.app, otherJob);
    const foreign = readingBody(other);
    await log(foreign, otherJob).expect(201);
    await log(readingBody(other)).expect(409);
    await log(readingBody(part, { fittedPartId: other.partId })).expect(409);
    await log(readingBody(part, { supersedesId: foreign.id })).expect(409);
    await log(readingBody(part, { targetKind: "rail", targetId: other.netId, fittedPartId: null })).expect(409);
    const unit = { targetKind: "unit", fittedPartId: null, quantity: "power", value: 40, isPowered: true };
    await log(readingBody(part, { ...unit, targetId: otherJob })).expect(409);
    expect(await stored()).toEqual([]);
  });

  it("refuse the id of a reading under another job", async () => {
    const otherJob = await makeJob(test.app);
    const body = readingBody(part);
    await log(body).expect(201);
    expect(((await log(body, otherJob).expect(409)).body as Problem).code).toBe("id_reused");
  });

  it.each([
    [{ value: -0.1 }, "value"],
    [{ value: 1e9 }, "value"],
    [{ quantity: "smell" }, "quantity"],
    [{ measuredAt: "yesterday" }, "measuredAt"],
    [{ frequencyHertz: 0 }, "frequencyHertz"],
    [{ rig: { isSeriesLamp: true } }, "rig.isIsolationTransformer"],
  ])("refuse %o with the path", async (more, path) => {
    const answer = await log(readingBody(part, more)).expect(422);
    expect((answer.body as Problem).errors.map((one) => one.path)).toContain(path);
    expect(await stored()).toEqual([]);
  });

  it("take a ripple and a negative rail, but no negative ripple", async () => {
    const rail = { targetKind: "rail", targetId: part.netId, fittedPartId: null, isPowered: true, loadAmps: 4 };
    await log(readingBody(part, { ...rail, quantity: "dc_voltage", value: -12.1 })).expect(201);
    await log(readingBody(part, { ...rail, quantity: "ripple_voltage", value: -0.1 })).expect(422);
  });

  it("need a job", async () => {
    await log(readingBody(part), newId()).expect(404);
  });
});

describe("signs", () => {
  const look = (body: object) => request(test.app).post(`/api/jobs/${jobId}/signs`).send(body);
  const body = () => ({
    id: newId(),
    fittedPartId: part.partId,
    observations: [
      { id: newId(), sign: "domed", state: "seen" },
      { id: newId(), sign: "leak", state: "not_seen" },
    ],
    observedAt: "2026-11-23T11:00:00.000Z",
    clockId: null,
    personId: null,
  });

  it("are stored together, once", async () => {
    const seen = body();
    await look(seen).expect(201);
    await look(seen).expect(200);
    const detail = (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
    expect(detail.signs.map((one) => [one.sign, one.state]).sort()).toEqual([
      ["domed", "seen"],
      ["leak", "not_seen"],
    ]);
  });

  it("are stored for the place of a part that is no capacitor, and for one of the two alone", async () => {
    const { positionId } = part;
    await look({ ...body(), positionId }).expect(422);
    await look({ ...body(), fittedPartId: null }).expect(422);
    const other = await makePart(test.app, await makeJob(test.app));
    await look({ ...body(), fittedPartId: null, positionId: other.positionId }).expect(409);
    await look({ ...body(), fittedPartId: null, positionId }).expect(201);
    const detail = (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
    expect(detail.signs.map((one) => [one.fittedPartId, one.positionId])).toEqual([
      [null, positionId],
      [null, positionId],
    ]);
  });

  it("refuse an unknown sign and another job's part, whole", async () => {
    await look({ ...body(), observations: [{ id: newId(), sign: "sad", state: "seen" }] }).expect(422);
    const other = await makePart(test.app, await makeJob(test.app));
    await look({ ...body(), fittedPartId: other.partId }).expect(409);
    const detail = (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
    expect(detail.signs).toEqual([]);
  });
});
