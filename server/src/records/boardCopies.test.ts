import { netValues, partValues, positionValues } from "@pale-cap/core/testing";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { JobRow } from "../database/models/jobs";
import { makeJob, newId, openTestApp, type TestApp } from "../testing/testApp";
import { copyBoards, loadBoardParts, toContent, toPlaces, withoutPromises } from "./boardCopies";

let test: TestApp;
let jobId: string;
/** Rows by what they are called here. */
const ids = new Map<string, string>();
const idOf = (name: string): string => {
  const id = ids.get(name) ?? newId();
  ids.set(name, id);
  return id;
};
const at = new Date("2026-11-23T11:00:00Z");

beforeAll(async () => {
  test = await openTestApp();
  jobId = await makeJob(test.app);
  const network = (behindNetId: string) => ({
    ...{ arrangement: "parallel" as const, behindNetId, chokeHenrys: 1e-6, chokeOhms: null },
  });
  const place = (designator: string, more: object) => ({
    ...{ ...positionValues, id: idOf(designator), lineageId: idOf(`${designator} of all`), version: 3 },
    ...{ designator, netId: idOf("12 V"), boardId: idOf("main"), deletedAt: null, note: "loose" },
    ...more,
  });
  const part = (designator: string, name: string, more: object) => ({
    ...{ ...partValues, id: idOf(name), positionId: idOf(designator), version: 2, origin: "found" as const },
    ...more,
  });
  await test.inScope(async ({ rows }) => {
    const main = await rows.boards.first({ jobId });
    ids.set("main", main?.id as string);
    await rows.boards.insert({ ...main, id: idOf("inverter"), place: 2, name: "Inverter", underlay: null });
    const rail = (name: string, boardId: string, more: object) => ({
      ...{ ...netValues, id: idOf(name), lineageId: idOf(`${name} of all`), version: 1, deletedAt: null },
      ...{ name, boardId: idOf(boardId), fullLoadAmps: 2.5, network: null },
      ...more,
    });
    await rows.nets.insertAll([
      rail("12 V", "main", {}),
      rail("5 V", "main", { network: network(idOf("12 V")) }),
      rail("Lamps", "inverter", { network: network(idOf("12 V")) }),
    ]);
    await rows.positions.insertAll([
      place("C1", {}),
      place("C2", { netId: null }),
      place("C3", {}),
      place("D1", { kind: "diode" }),
      place("C9", { deletedAt: at }),
      place("C1i", { designator: "C1", boardId: idOf("inverter"), netId: idOf("Lamps") }),
    ]);
    await rows.fittedParts.insertAll([
      part("C1", "old of C1", { ratedVolts: 16, removedAt: at }),
      part("C1", "new of C1", { ratedVolts: 25, origin: "replacement", fittedAt: at, priceMinor: 55, series: "Tern" }),
      part("C2", "C2", { ratedVolts: 35 }),
      part("C3", "C3", { ratedVolts: 50, removedAt: at }),
      part("C3", "in the hand for C3", { ratedVolts: 63, origin: "replacement", fittedAt: null }),
      part("D1", "D1", { removedAt: at }),
    ]);
  });
});
afterAll(() => test.close());

const contentOf = (of: string, boardId: string | null = null) =>
  test.inScope(async (scope) => {
    const parts = await loadBoardParts(scope, of, boardId);
    return parts && toContent(parts);
  });
/** What stands at each place of a board. */
const voltsOf = (content: Awaited<ReturnType<typeof contentOf>>) =>
  Object.fromEntries(content?.positions.map((one) => [one.designator, one.part?.ratedVolts ?? null]) ?? []);

it("takes a board as it was found: places, rails by their lineage, the first parts, and nothing of this unit alone", async () => {
  const content = await contentOf(jobId);
  expect(voltsOf(content)).toEqual({ C1: 16, C2: 35, C3: 50, D1: null });
  const placed = content?.positions.find((one) => one.designator === "C1");
  expect(placed).toMatchObject({ lineageId: idOf("C1 of all"), netLineageId: idOf("12 V of all") });
  for (const own of ["id", "boardId", "netId", "version", "deletedAt", "note"]) expect(placed).not.toHaveProperty(own);
  for (const own of ["id", "positionId", "origin", "fittedAt", "removedAt", "version"])
    expect(placed?.part).not.toHaveProperty(own);
  expect(content?.positions.find((one) => one.designator === "C2")?.netLineageId).toBeNull();
  const behind = content?.nets.find((one) => one.name === "5 V");
  expect(behind?.network?.behindNetId).toBe(idOf("12 V of all"));
  for (const own of ["id", "boardId", "version", "deletedAt"]) expect(behind).not.toHaveProperty(own);
  // A rail of another board is not in this board's copy.
  expect((await contentOf(jobId, idOf("inverter")))?.nets[0]?.network?.behindNetId).toBeNull();
  expect(content && withoutPromises(content).nets.map((one) => one.fullLoadAmps)).toEqual([null, null]);
  expect(await contentOf(jobId, newId())).toBeNull();
  const places = await test.inScope(async (scope) => {
    const parts = await loadBoardParts(scope, jobId, null);
    return parts ? toPlaces(parts) : [];
  });
  expect(places.map(({ designator, netName, part }) => [designator, netName, part?.ratedVolts ?? null]).sort()).toEqual(
    [
      ["C1", "12 V", 16],
      ["C2", null, 35],
      ["C3", "12 V", 50],
      ["D1", "12 V", null],
    ],
  );
});

it("fills all boards of another unit, or of the same with what stands there now, a rail behind another board's rail too", async () => {
  const [another, same] = [newId(), newId()];
  await test.inScope(async (scope) => {
    const { number: _, ...job } = (await scope.rows.jobs.first({ id: jobId })) as JobRow;
    await scope.rows.jobs.insertAll([another, same].map((id) => ({ ...job, id })));
    await copyBoards(scope, jobId, another);
    await copyBoards(scope, jobId, same, "standing");
  });
  const rowsOf = (of: string) =>
    test.inScope(async ({ rows }) => {
      const boards = await rows.boards.all({ jobId: of }, [["place", "ASC"]]);
      const nets = await rows.nets.all({ boardId: boards.map((one) => one.id) }, [["name", "ASC"]]);
      const positions = await rows.positions.all({ boardId: boards.map((one) => one.id) }, [["designator", "ASC"]]);
      const parts = await rows.fittedParts.all({ positionId: positions.map((one) => one.id) }, [["id", "ASC"]]);
      return { boards, nets, positions, parts };
    });
  const copy = await rowsOf(another);
  expect(copy.boards.map((one) => [one.place, one.name, one.version])).toEqual([
    [1, null, 1],
    [2, "Inverter", 1],
  ]);
  const rail = (name: string) => copy.nets.find((one) => one.name === name);
  expect(rail("Lamps")?.network?.behindNetId).toBe(rail("12 V")?.id);
  expect(rail("5 V")?.network?.behindNetId).toBe(rail("12 V")?.id);
  expect(rail("12 V")?.lineageId).toBe(idOf("12 V of all"));
  const content = await contentOf(another, copy.boards[0]?.id ?? null);
  const original = await contentOf(jobId);
  const byName = <T extends { designator?: string; name?: string }>(list: readonly T[] = []) =>
    [...list].sort((a, b) => ((a.designator ?? a.name ?? "") < (b.designator ?? b.name ?? "") ? -1 : 1));
  expect(byName(content?.positions)).toEqual(byName(original?.positions));
  expect(byName(content?.nets)).toEqual(byName(original?.nets));
  expect(copy.parts.every((one) => one.origin === "found" && one.version === 1)).toBe(true);
  // The same unit, back again: the new part of C1 is what is found there, of no drawer and no price; nothing stands at C3.
  const back = await rowsOf(same);
  expect(voltsOf(await contentOf(same, back.boards[0]?.id ?? null))).toEqual({ C1: 25, C2: 35, C3: null, D1: null });
  expect(back.parts.find((one) => one.ratedVolts === 25)).toMatchObject({
    series: "Tern",
    priceMinor: null,
    origin: "found",
  });
});
