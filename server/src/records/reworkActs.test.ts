import type { PlanReasons } from "@pale-cap/contract";
import { positionValues } from "@pale-cap/core/testing";
import { afterAll, beforeAll, beforeEach, expect, it } from "vitest";
import type { ReplacementPlanRow } from "../database/models/replacementPlans";
import type { HttpProblem } from "../http/problems";
import { catalogueEntry, makeHeap } from "../testing/stock";
import { type MadePart, makeJob, makePart, newId, openTestApp, type TestApp } from "../testing/testApp";
import { holdingJob } from "./holdingJob";
import { applyLateTicks, applyTick, type TickOfPlace } from "./reworkActs";
import { moveStock, releaseOf } from "./stock";

let test: TestApp;
let jobId: string;
let part: MadePart;
const at = new Date("2026-11-23T11:00:00Z");
/** What every fact has beside what it says. */
const came = { clockId: null, receivedAt: at, cameAfterClosing: false, personId: null, at };

beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());
beforeEach(async () => {
  jobId = await makeJob(test.app);
  part = await makePart(test.app, jobId);
});

/** What it said where it was refused; null where it was carried out. */
const tick = (step: TickOfPlace["step"], more: Partial<TickOfPlace> = {}) =>
  test
    .inScope(async (scope) => {
      const of = { positionId: part.positionId, fittedPartId: null, stripeDegrees: null, isDone: true };
      await applyTick(await holdingJob(scope, jobId), { ...of, step, at, ...more });
    })
    .then(
      () => null,
      (problem: HttpProblem) => problem.detail,
    );
const partsAt = (positionId: string) =>
  test.inScope(({ rows }) => rows.fittedParts.all({ positionId }, [["origin", "ASC"]]));
const noMark = "The board's polarity mark is not noted here yet, nor what stands for it.";
const noOldPart = "There is no old part at this position to remove.";

it("confirms polarity against what was noted alone: the board's mark, what stands for it, the stripe as it was seen", async () => {
  const other = await makePart(test.app, jobId, "C2");
  const negative = (boardNegativeDegrees: number | null, id = part.positionId) =>
    test.inScope(({ rows }) => rows.positions.update({ boardNegativeDegrees }, { id }));
  for (const id of [part.positionId, other.positionId]) await negative(null, id);
  expect(await tick("polarity_board_mark")).toBe(noMark);
  // Taking a tick back asks for nothing.
  expect(await tick("polarity_board_mark", { isDone: false })).toBeNull();
  await negative(0);
  expect(await tick("polarity_board_mark")).toBeNull();
  expect(await tick("polarity_board_mark", { positionId: other.positionId })).toBe(noMark);
  const seen = { id: newId(), jobId, kind: "polarity_seen" as const, word: "stripe to the edge", note: null };
  await test.inScope(({ rows }) => rows.jobActs.insert({ ...seen, ...came, subjectId: other.positionId }));
  expect(await tick("polarity_board_mark", { positionId: other.positionId })).toBeNull();
  await test.inScope(({ rows }) =>
    rows.fittedParts.update({ stripeDegrees: null, isNonPolar: false }, { id: part.partId }),
  );
  expect(await tick("polarity_part_mark")).toBe("Where the stripe of the part points was not noted.");
  expect(await tick("polarity_part_mark", { stripeDegrees: 180 })).toBeNull();
  expect((await partsAt(part.positionId)).map((one) => one.stripeDegrees)).toEqual([180]);
  expect(await tick("polarity_part_mark")).toBeNull();
});

it("takes out what stands there once, and puts it back; another part's place has a part once it came out", async () => {
  expect(await tick("removed")).toBeNull();
  expect((await partsAt(part.positionId)).map((one) => one.removedAt)).toEqual([at]);
  expect(await tick("removed")).toBe(noOldPart);
  const note = { jobId, step: "removed" as const, isDone: true, stripeDegrees: null };
  const place = { id: newId(), positionId: part.positionId, fittedPartId: part.partId };
  await test.inScope(({ rows }) => rows.reworkTicks.insertAll([{ ...note, ...place, ...came }]));
  expect(await tick("removed", { isDone: false })).toBeNull();
  expect((await partsAt(part.positionId)).map((one) => one.removedAt)).toEqual([null]);
  expect(await tick("removed", { isDone: false })).toBe("A new part is fitted here: take that back first.");
  const [fuse, empty] = [newId(), newId()];
  await test.inScope(async ({ rows }) => {
    const found = await rows.positions.first({ id: part.positionId });
    const common = { ...positionValues, boardId: found?.boardId as string, version: 1, deletedAt: null };
    await rows.positions.insertAll([
      { ...common, id: fuse, lineageId: fuse, designator: "F1", kind: "fuse" },
      { ...common, id: empty, lineageId: empty, designator: "C7" },
    ]);
  });
  // A capacitor has a row of its own; what else stood there is known when it comes out, and comes out once.
  expect(await tick("removed", { positionId: empty })).toBe(noOldPart);
  expect(await tick("removed", { positionId: fuse })).toBeNull();
  expect(await partsAt(fuse)).toMatchObject([{ origin: "found", removedAt: at, fittedAt: null }]);
  expect(await tick("removed", { positionId: fuse })).toBe(noOldPart);
  expect(await tick("fitted", { positionId: empty, fittedPartId: newId() })).toBe(
    "Nothing was chosen for this position yet.",
  );
  expect(await tick("fitted", { isDone: false })).toBe("There is no new part at this position.");
});

/** The job's part is out, and this goes in. */
async function planned(more: Partial<ReplacementPlanRow>): Promise<void> {
  const { positionId } = part;
  const plan = { id: newId(), positionId, version: 1, round: 1, isLeftEmpty: false, reasons: {} as PlanReasons };
  await test.inScope(async ({ rows }) => {
    await rows.fittedParts.update({ removedAt: at }, { id: part.partId });
    await rows.replacementPlans.insert({ ...plan, ...more });
  });
}
const standing = async () => (await partsAt(part.positionId)).filter((one) => one.removedAt === null);
const stillFaulty = (of: string) => ({
  ...{ id: newId(), jobId: of, kind: "still_faulty" as const, subjectId: null, word: null, note: null, ...came },
});
const notListed = "The chosen part is not in the catalogue any more.";

it("fits what was chosen in the job's own round, out of the drawer where one lies there, and puts it back there", async () => {
  const cataloguePartId = newId();
  await test.inScope(({ rows }) => rows.catalogueParts.insert({ ...catalogueEntry, id: cataloguePartId }));
  const itemId = await makeHeap(test.app, { cataloguePartId });
  await planned({ cataloguePartId, stockItemId: itemId });
  // Another job is in its second round; this one is in its first.
  const other = await makeJob(test.app);
  await test.inScope(({ rows }) => rows.jobActs.insert(stillFaulty(other)));
  const [first, second] = [newId(), newId()];
  expect(await tick("fitted", { fittedPartId: first, stripeDegrees: 90 })).toBeNull();
  const { capacitanceFarads, ratedVolts, series } = catalogueEntry;
  expect(await standing()).toMatchObject([
    { id: first, stockItemId: itemId, cataloguePartId, stripeDegrees: 90, capacitanceFarads, ratedVolts, series },
  ]);
  expect(await tick("fitted", { fittedPartId: second })).toMatch(/^The old part is still in this position/);
  const moves = async () =>
    (await test.inScope(({ rows }) => rows.stockMovements.all({ itemId }, [["sequence", "ASC"]]))).map(
      (one) => one.kind,
    );
  expect(await moves()).toEqual(["received", "fitted"]);
  expect(await tick("fitted", { isDone: false })).toBeNull();
  expect(await moves()).toEqual(["received", "fitted", "put_back"]);
  expect(await standing()).toEqual([]);
  // Somebody took the last one: that it went in is a fact, and it came from elsewhere.
  await test.inScope(async (scope) => {
    await releaseOf(scope, part.positionId);
    await moveStock(scope, { itemId, kind: "scrapped", pieces: 1 });
  });
  expect(await tick("fitted", { fittedPartId: second })).toBeNull();
  expect(await standing()).toMatchObject([{ id: second, stockItemId: null, cataloguePartId }]);
  expect(await tick("fitted", { isDone: false })).toBeNull();
  await test.inScope(({ rows }) => rows.jobActs.insert(stillFaulty(jobId)));
  expect(await tick("fitted", { fittedPartId: newId() })).toBe("Nothing was chosen for this position yet.");
});

it("fits nothing that the lists have no more", async () => {
  await planned({ otherPart: "some capacitor" });
  expect(await tick("fitted", { fittedPartId: newId() })).toBe(notListed);
  await test.inScope(async ({ rows }) => {
    await rows.positions.update({ kind: "fuse" }, { id: part.positionId });
    const component = { componentId: newId() } as ReplacementPlanRow["component"];
    await rows.replacementPlans.update({ otherPart: null, component }, { positionId: part.positionId });
  });
  expect(await tick("fitted", { fittedPartId: newId() })).toBe(notListed);
  await test.inScope(({ rows }) =>
    rows.replacementPlans.update({ otherPart: "T2A of the shop", component: null }, { positionId: part.positionId }),
  );
  expect(await tick("fitted", { fittedPartId: newId() })).toBeNull();
  expect(await standing()).toMatchObject([{ origin: "replacement", series: "T2A of the shop", stockItemId: null }]);
});

it("carries out what came for a closed job in its order, and leaves what does not go together with the board", async () => {
  const other = await makePart(test.app, jobId, "C2");
  const common = { jobId, fittedPartId: null, stripeDegrees: null, ...came, cameAfterClosing: true };
  const before = { ...common, positionId: part.positionId, step: "removed" as const, isDone: true };
  await test.inScope(({ rows }) => rows.reworkTicks.insertAll([{ ...before, id: newId() }]));
  const [since] = await test.inScope(({ sql }) =>
    sql<{ n: number }>("SELECT max(sequence)::int AS n FROM rework_ticks"),
  );
  await test.inScope(({ rows }) =>
    rows.reworkTicks.insertAll([
      // Nothing new stands there to be taken out.
      { ...before, id: newId(), positionId: other.positionId, step: "fitted" as const, isDone: false },
      { ...before, id: newId(), positionId: other.positionId },
    ]),
  );
  await test.inScope(async (scope) => applyLateTicks(await holdingJob(scope, jobId), jobId, since?.n ?? 0));
  expect((await partsAt(other.positionId)).map((one) => one.removedAt)).toEqual([at]);
  // What came before the job was opened the last time was carried out then.
  expect((await partsAt(part.positionId)).map((one) => one.removedAt)).toEqual([null]);
  // A fault of the database is no refusal: it is not swallowed.
  const broken = test.inScope(async (scope) => {
    const gone = () => Promise.reject(new Error("gone"));
    const fittedParts = new Proxy(scope.rows.fittedParts, {
      get: (rows, name) => (name === "first" ? gone : Reflect.get(rows, name)),
    });
    const held = await holdingJob(scope, jobId);
    await applyLateTicks({ ...held, rows: { ...scope.rows, fittedParts } }, jobId, since?.n ?? 0);
  });
  await expect(broken).rejects.toThrow("gone");
});
