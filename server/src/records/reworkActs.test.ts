import { positionValues } from "@pale-cap/core/testing";
import { afterAll, beforeAll, beforeEach, expect, it } from "vitest";
import type { HttpProblem } from "../http/problems";
import { type MadePart, makeJob, makePart, newId, openTestApp, type TestApp } from "../testing/testApp";
import { formerJob } from "./formerJob";
import { holdingJob } from "./holdingJob";
import { applyTick, type TickOfPlace } from "./reworkActs";

let test: TestApp;
let jobId: string;
let part: MadePart;
const at = new Date("2026-11-23T11:00:00Z");

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
  const act = { clockId: null, receivedAt: at, cameAfterClosing: false, personId: null, at };
  await test.inScope(({ rows }) => rows.jobActs.insert({ ...seen, ...act, subjectId: other.positionId }));
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
  const note = { jobId, step: "removed" as const, isDone: true, stripeDegrees: null, personId: null, at };
  const place = { id: newId(), positionId: part.positionId, fittedPartId: part.partId };
  const came = { clockId: null, receivedAt: at, cameAfterClosing: false };
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

it("knows a job that is held, and one that a unit could come back from", async () => {
  const said = (work: Promise<unknown>) =>
    work.then(
      () => null,
      (problem: HttpProblem) => `${problem.code}: ${problem.detail}`,
    );
  const former = (id: string) => said(test.inScope((scope) => formerJob(scope, id)));
  expect(await said(test.inScope((scope) => holdingJob(scope, newId())))).toBe(
    "not_found: There is no job with this id.",
  );
  expect(await former(newId())).toBe("not_found: There is no job with this id that a unit could come back from.");
  expect(await former(jobId)).toBe("conflict: That job is not handed over yet: go on with it.");
  await test.inScope(({ sql }) => sql("UPDATE jobs SET handed_over_at = now() WHERE id = $1 RETURNING id", [jobId]));
  expect(await former(jobId)).toBeNull();
});
