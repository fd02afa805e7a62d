import { type AddedList, addedLists, type JobDetail } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { Scope } from "../database/scope";
import type { HttpProblem } from "../http/problems";
import { type MadePart, makeJob, makePart, newId, openTestApp, readingBody, type TestApp } from "../testing/testApp";
import { saveBlob } from "./blobStore";
import { holdingJob } from "./holdingJob";
import { loadAdded, loadBoardRows, loadJob, loadJobs } from "./loadJobs";

let test: TestApp;
const at = "2026-11-23T11:00:00.000Z";
const by = { at, clockId: null, personId: null };

/** What is only ever added to a job, with what is sent for one of it. */
type Added = { readonly [K in AddedList]: readonly [path: string, body: object] };
const addedTo = (part: MadePart, made: { readonly step: string; readonly quote: string }): Added => ({
  readings: ["readings", readingBody(part, { clockId: null })],
  signs: ["signs", { fittedPartId: part.partId, observedAt: at, clockId: null, personId: null }],
  overrules: ["overrules", { fittedPartId: part.partId, verdict: "sound", reason: "swapped", ...by }],
  chargeEvents: [
    "charge-events",
    {
      ...{ storeId: null, kind: "voltage_measured", volts: 3.2, resistanceOhms: null, drainItem: null },
      ...{ isMeterProved: true, ...by },
    },
  ],
  powerEvents: ["power-events", { kind: "short_test", resistanceOhms: 4e3, hasShort: false, note: "cold", ...by }],
  teardownReturns: ["teardown-returns", { stepId: made.step, countIn: 3, ...by }],
  ticks: ["ticks", { step: "removed", isDone: true, ...by }],
  acts: ["acts", { kind: "outcome", subjectId: null, word: "declined", note: null, ...by }],
  acceptances: ["acceptances", { key: "charge", reason: "drained", acceptedAt: at, clockId: null, personId: null }],
  quotes: [
    "quotes",
    {
      ...{ taxRatio: 0.19, validDays: 14, note: null, ...by },
      lines: [{ kind: "labour", words: null, quantity: 45, unitMinor: 100 }],
    },
  ],
  quoteAnswers: [
    "quote-answers",
    { quoteId: made.quote, word: "yes", limitMinor: null, byWhom: "the owner", way: "phone", ...by },
  ],
});

interface Unit {
  readonly jobId: string;
  readonly parts: readonly [MadePart, MadePart];
  /** What was added, list by list, in the order in which it came. */
  readonly added: ReadonlyMap<AddedList, readonly string[]>;
  /** The place in the order after the first of each. */
  readonly half: number;
}
let units: readonly [Unit, Unit];

/** A job with two of everything. */
async function makeUnit(): Promise<Unit> {
  const jobId = await makeJob(test.app);
  const send = (path: string, body: object) =>
    request(test.app).post(`/api/jobs/${jobId}/${path}`).send(body).expect(201);
  const parts = [await makePart(test.app, jobId, "C1"), await makePart(test.app, jobId, "C2")] as const;
  const made = { step: newId(), quote: newId() };
  const screws = { kind: "screws", count: 4, size: null, place: null, photoId: null, doneAt: at, personId: null };
  for (const id of [made.step, newId()]) await send("teardown-steps", { id, ...screws });
  const added = new Map(addedLists.map((list) => [list, [] as string[]]));
  let half = 0;
  for (const round of [0, 1] as const) {
    const part = parts[round];
    const facts = addedTo(part, made);
    // A quote comes before its answer.
    for (const list of addedLists) {
      const [path, body] = facts[list];
      const id = list === "quotes" && round === 0 ? made.quote : newId();
      const own = { id: newId(), positionId: part.positionId, fittedPartId: null, stripeDegrees: 90 };
      const seen = { id: newId(), sign: "vented", state: "seen" };
      const more = list === "ticks" ? { items: [own] } : list === "signs" ? { observations: [seen] } : {};
      await send(path, { ...body, ...more, id });
      added.get(list)?.push(list === "ticks" ? own.id : list === "signs" ? seen.id : id);
    }
    if (round === 0) {
      const [last] = await test.inScope(({ sql }) =>
        sql<{ n: number }>("SELECT max(sequence)::int AS n FROM quote_answers WHERE job_id = $1", [jobId]),
      );
      half = last?.n ?? 0;
    }
  }
  await test.inScope(async (scope) => {
    const { rows } = scope;
    const blob = await saveBlob(scope, Buffer.from(jobId), "image/webp");
    const common = { jobId, version: 1, personId: null, isRemoved: false };
    await rows.photos.insert({
      ...{ ...common, id: newId(), kind: "other", caption: "its label", marks: [], takenAt: new Date(at) },
      ...{ imageSha256: blob, thumbnailSha256: blob, widthPixels: 4, heightPixels: 3 },
    });
    for (const isRemoved of [false, true, false]) {
      await rows.captures.insert({
        ...{ ...common, id: newId(), netId: parts[0].netId, name: "12 V", loadAmps: null, isRemoved },
        ...{ rig: {} as never, analysis: {} as never, coreVersion: "1", instrument: null, isSimulated: false },
        ...{ samplesSha256: blob, measuredAt: new Date(at), receivedAt: new Date(at), cameAfterClosing: false },
        clockId: null,
      });
    }
    for (const name of ["Bulk", "Standby"])
      await rows.energyStores.insert({
        ...{ id: newId(), jobId, version: 1, name, kind: "bulk", positionId: null, netId: null },
        ...{ capacitanceFarads: 1e-4, expectedVolts: 325, bleederOhms: null, drainOhms: null },
      });
    for (const { positionId } of parts)
      await rows.replacementPlans.insert({
        ...{ id: newId(), positionId, version: 1, round: 2, isLeftEmpty: false, reasons: {} as never },
        ...{ otherPart: "as it was", esrMaxOhms: 0.04 },
      });
    const customerId = newId();
    await rows.customers.insert({ id: customerId, name: `Owner of ${jobId}`, contact: "rings", erasedAt: null });
    await rows.jobCustomers.insert({ jobId, customerId, ownersWords: `hums, ${jobId}` });
  });
  return { jobId, parts, added, half };
}

beforeAll(async () => {
  test = await openTestApp();
  units = [await makeUnit(), await makeUnit()];
});
afterAll(() => test.close());

const idsOf = (rows: readonly object[]) => rows.map((one) => (one as { id: string }).id);
const sorted = (ids: readonly string[]) => [...ids].sort();

it("loads jobs by number, each with its own rows alone, facts in the order in which they came", async () => {
  const [first, second] = units;
  const details = await test.inScope((scope) => loadJobs(scope, [second.jobId, first.jobId]));
  expect(details.map((one) => one.job.id)).toEqual([first.jobId, second.jobId]);
  for (const [n, detail] of details.entries()) {
    const { jobId, parts, added } = units[n] as Unit;
    for (const list of addedLists) expect([list, idsOf(detail[list])]).toEqual([list, added.get(list)]);
    expect(idsOf(detail.nets)).toEqual(sorted(parts.map((one) => one.netId)));
    expect(idsOf(detail.positions)).toEqual(sorted(parts.map((one) => one.positionId)));
    expect(idsOf(detail.fittedParts)).toEqual(sorted(parts.map((one) => one.partId)));
    expect(detail.plans.map((one) => one.positionId).sort()).toEqual(sorted(parts.map((one) => one.positionId)));
    expect(detail.energyStores.map((one) => one.name).sort()).toEqual(["Bulk", "Standby"]);
    expect(detail.teardownSteps).toMatchObject([{ count: 4 }, { count: 4 }]);
    expect([detail.captures.length, detail.photos.length, detail.boards.length]).toEqual([2, 1, 1]);
    expect(detail.job).toMatchObject({
      ...{ customerName: `Owner of ${jobId}`, customerContact: "rings", ownersWords: `hums, ${jobId}` },
      ...{ customerErasedAt: null, handedOverAt: null, createdAt: expect.stringMatching(/^2026-11-23T12:00/) },
    });
    const alone = await test.inScope((scope) => loadJob(scope, jobId));
    expect(alone).toEqual(detail);
    expect(await test.inScope((scope) => loadBoardRows(scope, jobId))).toEqual({
      ...{ boards: detail.boards, nets: detail.nets, positions: detail.positions, fittedParts: detail.fittedParts },
    });
  }
});

it("tells nothing of a row that only the tables need, and a test's numbers and a plan's own under their names", async () => {
  const detail = await test.inScope((scope) => loadJob(scope, units[0].jobId));
  const own = Object.entries(detail).filter(([key]) => key !== "job" && key !== "record");
  for (const [list, rows] of own as [string, readonly object[]][])
    for (const row of rows) {
      const kept = ["jobId", "lineageId", "deletedAt", "boardTypeRevisionId", "imageSha256", "thumbnailSha256"];
      for (const name of [...kept, "samplesSha256", "checkValues"]) expect([list, row]).not.toHaveProperty([1, name]);
    }
  const [shorted] = detail.powerEvents;
  expect(shorted).toMatchObject({ kind: "short_test", note: "cold" });
  expect(shorted).toHaveProperty("values");
  const [plan] = detail.plans;
  expect(plan).toMatchObject({ round: 2, otherPart: "as it was", overrides: { esrMaxOhms: 0.04, esrMinOhms: null } });
  expect(plan).not.toHaveProperty("id");
});

it("loads what was added after a place in the order, of that job alone", async () => {
  const { jobId, added, half } = units[0];
  const later = await test.inScope((scope) => loadAdded(scope, jobId, half));
  const told: Partial<Record<AddedList, readonly string[]>> = {};
  for (const list of addedLists) told[list] = idsOf(later[list]);
  expect(told).toEqual(Object.fromEntries(addedLists.map((list) => [list, added.get(list)?.slice(1)])));
  for (const list of addedLists) for (const row of later[list]) expect(row).not.toHaveProperty("jobId");
  expect(later.powerEvents[0]).toHaveProperty("values");
});

it("leaves out what was taken off, and knows no job that is not", async () => {
  const { jobId, parts } = units[1];
  const taken = parts[0];
  await test.inScope(async ({ rows, sql }) => {
    await rows.positions.update({ deletedAt: new Date(at) }, { id: taken.positionId });
    await rows.nets.update({ deletedAt: new Date(at) }, { id: taken.netId });
    await sql("UPDATE teardown_steps SET is_removed = true WHERE job_id = $1 AND number = 1 RETURNING id", [jobId]);
  });
  const left: JobDetail = await test.inScope((scope) => loadJob(scope, jobId));
  expect(idsOf(left.positions)).toEqual([parts[1].positionId]);
  expect(idsOf(left.nets)).toEqual([parts[1].netId]);
  expect(idsOf(left.fittedParts)).toEqual([parts[1].partId]);
  expect(left.plans.map((one) => one.positionId)).toEqual([parts[1].positionId]);
  expect(left.teardownSteps).toHaveLength(1);
  // What was done with it stays.
  expect(left.readings).toHaveLength(2);
  const loads: readonly ((scope: Scope, id: string) => Promise<unknown>)[] = [loadJob, holdingJob];
  for (const load of loads) {
    const said = await test
      .inScope((scope) => load(scope, newId()))
      .catch((problem: HttpProblem) => `${problem.code}: ${problem.detail}`);
    expect(said).toBe("not_found: There is no job with this id.");
  }
});
