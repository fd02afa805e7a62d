import { acceptedReasons, type FactAnswer, type JobDetail, jobFacts, type Problem } from "@pale-cap/contract";
import { jobChargeState, latestSigns, outcomeOf } from "@pale-cap/core";
import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import {
  benchLines,
  type MadePart,
  makeJob,
  makePart,
  newId,
  openTestApp,
  readingBody,
  type TestApp,
  testClock,
} from "../../testing/testApp";

const noon = Date.parse("2026-11-23T12:00:00Z");
const rules = { workingVolts: 10, reverifySeconds: 1800, waitSeconds: 60 };
const iso = (seconds: number) => new Date(noon + seconds * 1000).toISOString();

let test: TestApp;
let jobId: string;
let part: MadePart;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());
beforeEach(async () => {
  test.setNow(new Date(noon));
  jobId = await makeJob(test.app);
  part = await makePart(test.app, jobId);
});

const load = async () => (await request(test.app).get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
const charge = async (nowSeconds = 0) => jobChargeState(jobFacts(await load()), rules, noon + nowSeconds * 1000);

/** A page with a clock of its own, so many seconds ahead of the server's. */
function page(aheadSeconds: number, clockId = newId()) {
  const now = () => test.now() + aheadSeconds * 1000;
  const send = (path: string, body: object) =>
    request(test.app)
      .post(`/api/jobs/${jobId}/${path}`)
      .set("x-clock-id", clockId)
      .set("x-sent-at", String(now()))
      .send({ id: newId(), clockId, personId: null, ...body });
  const event = (kind: string, more: object = {}) =>
    send("charge-events", {
      ...{ storeId: null, kind, volts: null, resistanceOhms: null, drainItem: null, isMeterProved: true },
      at: new Date(now()).toISOString(),
      ...more,
    }).expect(201);
  return { clockId, send, event };
}

async function addBulk(): Promise<string> {
  const id = newId();
  const body = { id, name: "Bulk", kind: "bulk", positionId: part.positionId, netId: null };
  const values = { capacitanceFarads: 1e-4, expectedVolts: 325, bleederOhms: null, drainOhms: null };
  await request(test.app)
    .post(`/api/jobs/${jobId}/energy-stores`)
    .send({ ...body, ...values })
    .expect(201);
  return id;
}

describe("two benches whose clocks differ", () => {
  it("are ordered by the database: a fast clock outranks no later mains connection", async () => {
    const storeId = await addBulk();
    const [fast, right] = [page(600), page(0)];
    await right.event("voltage_measured", { storeId, volts: 311 });
    await fast.event("voltage_measured", { storeId, volts: 1 });
    expect(await charge()).toMatchObject({ name: "unknown", reason: "clock_ahead", volts: 1 });
    await right.event("mains_connected");
    expect(await charge()).toMatchObject({ name: "unknown", reason: "mains_connected" });
    await right.event("voltage_measured", { storeId, volts: 325 });
    expect(await charge()).toMatchObject({ name: "charged", volts: 325 });
  });

  it("are never refused for a moment ahead: it is stored, and verifies nothing", async () => {
    const storeId = await addBulk();
    const right = page(0);
    await right.event("voltage_measured", { storeId, volts: 311 });
    await right.event("voltage_measured", { storeId, volts: 1, at: "2029-11-23T12:00:00.000Z" });
    expect((await load()).chargeEvents.at(-1)?.at).toBe("2029-11-23T12:00:00.000Z");
    expect(await charge()).toMatchObject({ name: "unknown", reason: "clock_ahead" });
  });

  it("know by how much: a verification counts from the server's moment", async () => {
    const storeId = await addBulk();
    const slow = page(-300);
    test.setNow(new Date(noon - 61e3));
    await slow.event("voltage_measured", { storeId, volts: 1 });
    test.setNow(new Date(noon));
    await slow.event("voltage_measured", { storeId, volts: 1 });
    expect(await charge(1799)).toMatchObject({ name: "verified", verifiedUntilMilliseconds: noon + 1800e3 });
    expect(await charge(1801)).toMatchObject({ name: "unknown", reason: "verification_expired" });
  });

  it("verify nothing with a moment whose clock nobody ever heard", async () => {
    const storeId = await addBulk();
    const right = page(0);
    await right.event("voltage_measured", { storeId, volts: 311 });
    await right.event("voltage_measured", { storeId, volts: 1, clockId: newId() });
    expect(await charge()).toMatchObject({ name: "unknown", reason: "clock_unknown" });
  });

  it("stay known to a later page that sends what an earlier one confirmed", async () => {
    const storeId = await addBulk();
    const [before, after] = [page(20), page(0)];
    test.setNow(new Date(noon - 61e3));
    await before.event("voltage_measured", { storeId, volts: 1 });
    test.setNow(new Date(noon));
    await after.event("voltage_measured", { storeId, volts: 1, clockId: before.clockId, at: iso(20) });
    expect((await load()).chargeEvents.at(-1)?.clockAheadSeconds).toBeCloseTo(20, 6);
    expect((await charge()).name).toBe("verified");
  });

  it("tell of a reading whether the drain was on; an older page that told nothing meant that it was off", async () => {
    const storeId = await addBulk();
    const right = page(0);
    await right.event("voltage_measured", { storeId, volts: 1 });
    expect((await load()).chargeEvents.at(-1)).toMatchObject({ isDrainOn: false, lineSide: null });
    await right.event("voltage_measured", { storeId, volts: 1, isDrainOn: true, lineSide: "plug" });
    expect((await load()).chargeEvents.at(-1)).toMatchObject({ isDrainOn: true, lineSide: "plug" });
    expect(await charge()).toMatchObject({ name: "verified", isDrainOn: true });
    await right.event("drain_removed", { storeId });
    expect(await charge()).toMatchObject({ name: "drained_once", isDrainOn: false });
  });

  it("let what was looked at last stand, whatever the clocks say", async () => {
    const look = (state: string, at: string) =>
      page(0).send("signs", {
        fittedPartId: part.partId,
        observations: [{ id: newId(), sign: "domed", state }],
        observedAt: at,
      });
    await look("seen", iso(3600)).expect(201);
    await look("not_seen", iso(-3600)).expect(201);
    expect(latestSigns((await load()).signs, part.partId)).toEqual({ domed: "not_seen" });
  });
});

describe("an act", () => {
  const send = (more: object) =>
    page(0).send("acts", { kind: "outcome", subjectId: null, word: "declined", note: null, at: iso(0), ...more });
  it("is stored, and what was said last stands", async () => {
    await send({}).expect(201);
    expect(outcomeOf(jobFacts(await load()).acts)).toBe("declined");
    await send({ word: "repaired" }).expect(201);
    expect(outcomeOf(jobFacts(await load()).acts)).toBe("repaired");
  });
  it("is refused with a word that its kind does not have, and stores nothing", async () => {
    const answer = await send({ word: "given away" }).expect(422);
    expect((answer.body as Problem).errors?.[0]).toMatchObject({ path: "word", code: "not_known_word" });
    await send({ word: null }).expect(422);
    expect((await load()).acts).toEqual([]);
  });
  it("carries the value or the words that its kind needs, and a photo of its own job only", async () => {
    const damage = { subjectId: part.positionId, kind: "damage", word: "pad" };
    await send({ kind: "mend_read", subjectId: part.positionId, word: null }).expect(422);
    await send({ kind: "mend_read", subjectId: part.positionId, word: null, value: -1 }).expect(422);
    await send({ kind: "mechanical", word: null, note: " " }).expect(422);
    await send({ ...damage, photoId: newId() }).expect(409);
    expect((await load()).acts).toEqual([]);
    await send({ kind: "mend_read", subjectId: part.positionId, word: null, value: 0.02 }).expect(201);
    expect((await load()).acts).toMatchObject([{ kind: "mend_read", value: 0.02, photoId: null }]);
  });
});

describe("a batch of facts", () => {
  const send = async (facts: readonly object[]) =>
    (await request(test.app).post(`/api/jobs/${jobId}/facts`).send({ facts }).expect(200)).body as FactAnswer[];
  const reading = (more: object = {}) => ({ kind: "reading", body: readingBody(part, more) });

  it("is stored in its order, each once, and answered with what is stored", async () => {
    const facts = [reading(), reading({ value: 0.05 }), reading({ value: 0.06 })];
    const answers = await send(facts);
    const { readings } = await load();
    expect(readings.map((one) => one.value)).toEqual([0.04, 0.05, 0.06]);
    expect(answers.map((one) => "rows" in one && (one.rows as { sequence: number }).sequence)).toEqual(
      readings.map((one) => one.sequence),
    );
    expect(await send(facts)).toEqual(answers);
    expect((await load()).readings).toHaveLength(3);
  });

  it("lets what is refused step aside and the rest pass", async () => {
    const taken = reading();
    const answers = await send([
      reading({ value: -5 }),
      taken,
      { kind: "reading", body: { ...taken.body, value: 1 } },
      { kind: "charge", body: { id: newId() } },
    ]);
    expect(answers.map((one) => ("problem" in one ? one.problem.code : "stored"))).toEqual([
      "invalid_body",
      "stored",
      "id_reused",
      "invalid_body",
    ]);
    expect((await load()).readings).toHaveLength(1);
  });

  it("has an end, and knows its kinds", async () => {
    const refused = async (facts: readonly object[]) =>
      (await request(test.app).post(`/api/jobs/${jobId}/facts`).send({ facts }).expect(422)).body as Problem;
    expect((await refused(Array.from({ length: 51 }, () => reading()))).errors[0]?.path).toBe("facts");
    expect((await refused([{ kind: "gossip", body: { id: newId() } }])).errors[0]?.path).toBe("facts[0].kind");
    expect((await refused([{ kind: "reading", body: {} }])).errors[0]?.path).toBe("facts[0].body");
    expect(await refused([])).toMatchObject({ code: "invalid_body" });
  });

  it("refuses facts of a job that is not stored, one by one", async () => {
    const answer = await request(test.app)
      .post(`/api/jobs/${newId()}/facts`)
      .send({ facts: [reading()] })
      .expect(200);
    expect(answer.body[0].problem.code).toBe("not_found");
  });
});

describe("what comes after a job was closed", () => {
  const handOver = (version: number, isReopened: boolean) =>
    request(test.app)
      .post(`/api/jobs/${jobId}/hand-over`)
      .send({
        ...{ id: newId(), version, isReopened, handedOverAt: iso(0), warrantyMonths: 6, spentMinutes: null },
        ...{ note: null, clockId: testClock, personId: null },
      })
      .expect(200);
  const reading = (more: object = {}) =>
    request(test.app).post(`/api/jobs/${jobId}/readings`).send(readingBody(part, more)).expect(201);

  it("is kept and told on the bench, and proves nothing until the job is opened", async () => {
    await handOver(1, false);
    await reading({ value: 0.9 });
    const closed = await load();
    expect(closed.readings[0]).toMatchObject({ cameAfterClosing: true, value: 0.9 });
    expect(jobFacts(closed).readings).toEqual([]);
    const [line] = await benchLines(test, "?state=closed");
    expect(line).toMatchObject({ id: jobId, lateFactCount: 1 });
    expect((await request(test.app).get("/api/bench")).body.late).toMatchObject([{ id: jobId }]);
    await handOver(2, true);
    expect(jobFacts(await load()).readings).toHaveLength(1);
    expect((await benchLines(test)).find((one) => one.id === jobId)?.lateFactCount).toBe(0);
  });

  it("accepts nothing either, until the job is opened", async () => {
    await handOver(1, false);
    const body = {
      id: newId(),
      key: "charge",
      reason: "drained",
      acceptedAt: iso(0),
      clockId: testClock,
      personId: null,
    };
    await request(test.app).post(`/api/jobs/${jobId}/acceptances`).send(body).expect(201);
    expect(acceptedReasons(await load()).size).toBe(0);
    expect((await benchLines(test, "?state=closed"))[0]).toMatchObject({ id: jobId, lateFactCount: 1 });
    await handOver(2, true);
    expect(acceptedReasons(await load()).get("charge")).toBe("drained");
  });

  it("is no edit: those are refused until the job is opened", async () => {
    await handOver(1, false);
    const edit = {
      id: newId(),
      changes: [{ table: "net", operation: "delete", id: part.netId, version: 1, values: null }],
    };
    const refused = await request(test.app).post(`/api/jobs/${jobId}/board-edits`).send(edit).expect(409);
    expect((refused.body as Problem).code).toBe("conflict");
    expect((await load()).nets).toHaveLength(1);
  });

  it("carries a late tick out when the job is opened, not before", async () => {
    await handOver(1, false);
    const item = { id: newId(), positionId: part.positionId, fittedPartId: null, stripeDegrees: null };
    const body = { id: newId(), step: "removed", isDone: true, at: iso(0), items: [item], clockId: testClock };
    await request(test.app)
      .post(`/api/jobs/${jobId}/ticks`)
      .send({ ...body, personId: null })
      .expect(201);
    expect((await load()).fittedParts[0]?.removedAt).toBeNull();
    await handOver(2, true);
    expect((await load()).fittedParts[0]?.removedAt).toBe(iso(0));
  });
});
