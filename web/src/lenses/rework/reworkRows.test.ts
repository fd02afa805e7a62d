import { sampleDetail } from "@pale-cap/contract/testing";
import type { CatalogueComponent, CataloguePart } from "@pale-cap/core";
import { samplePart, samplePosition } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { reworkRows } from "./reworkRows";

const catalogue = [{ id: "new-1000u" }, { id: "new-470u" }] as unknown as CataloguePart[];
const plan = (designator: string, cataloguePartId: string | null) => ({
  positionId: `at-${designator}`,
  cataloguePartId,
});
const positions = ["C3", "C2", "C1", "C4"].map((name) => samplePosition(name));
const fittedParts = ["C1", "C2", "C3"].map((name) => samplePart(name));
const base = { positions, fittedParts };

describe("reworkRows", () => {
  it("groups the planned places by the part that goes in, in the order of the board", () => {
    const plans = [plan("C2", "new-1000u"), plan("C1", "new-1000u"), plan("C3", "new-470u")];
    const groups = reworkRows(sampleDetail({ ...base, plans }), catalogue);
    expect(groups.map((one) => [one.key, one.rows.map((row) => row.position.designator)])).toEqual([
      ["new-1000u", ["C1", "C2"]],
      ["new-470u", ["C3"]],
    ]);
    expect(groups[0]?.replacement?.key).toBe("new-1000u");
  });

  it("leaves out what was not chosen and what the catalogue does not have", () => {
    const plans = [plan("C1", null), plan("C2", "gone"), plan("C4", null)];
    expect(reworkRows(sampleDetail({ ...base, plans }), catalogue)).toEqual([]);
    expect(reworkRows(sampleDetail({ ...base, plans: [plan("C3", "new-470u")] }), undefined)).toEqual([]);
  });

  it("asks nothing out of a place where nothing was found, as beside one that holds two", () => {
    const [group] = reworkRows(sampleDetail({ ...base, plans: [plan("C4", "new-470u")] }), catalogue);
    expect(group?.rows[0]?.found).toBeUndefined();
    expect(group?.rows[0]?.steps).toEqual(["fitted", "polarity_board_mark", "polarity_part_mark"]);
  });

  it("has a row for every kind of part: out and in, by the list, in words, or out alone", () => {
    const kinds = ["transistor", "fuse", "choke", "heat-sink"] as const;
    const places = kinds.map((kind, n) => samplePosition(`X${n}`, { kind }));
    const listed = { id: "fet", kind: "transistor", maker: "Ostrel", typeNumber: "N65" } as CatalogueComponent;
    const component = { kind: "transistor", ratings: [], componentId: "fet" };
    const plans = [
      { ...plan("X0", null), component },
      { ...plan("X1", null), otherPart: "the same type" },
      { ...plan("X2", null), isLeftEmpty: true },
    ];
    const detail = sampleDetail({ positions: places, fittedParts: [], plans: plans as never });
    const rows = reworkRows(detail, [], new Set(["at-X3"]), [listed]).flatMap((one) => one.rows);
    expect(rows.map((row) => [row.position.designator, row.replacement?.name, row.steps])).toEqual([
      ["X0", "Ostrel N65", ["removed", "fitted"]],
      ["X1", "the same type", ["removed", "fitted"]],
      ["X2", undefined, ["removed"]],
    ]);
    // Chosen out of a list that is not there yet: it waits.
    expect(reworkRows(detail, [], new Set(), undefined).flatMap((one) => one.rows)).toHaveLength(2);
  });

  it("calls only a new part fitted, and knows what was ticked", () => {
    const removed = samplePart("C1", { removedAt: "2026-11-23T11:00:00Z" });
    const fresh = samplePart("C1", { id: "fresh", origin: "replacement" });
    const tick = {
      positionId: "at-C1",
      step: "removed",
      isDone: true,
      ...{ sequence: 1, clockId: null, receivedAt: null, clockAheadSeconds: null },
      at: "2026-11-23T11:00:00Z",
    } as const;
    const plans = [plan("C1", "new-1000u")];
    const row = (parts: typeof fittedParts) =>
      reworkRows(sampleDetail({ positions, plans, fittedParts: parts, ticks: [tick] }), catalogue)[0]?.rows[0];
    expect(row([samplePart("C1")])).toMatchObject({ fitted: undefined, done: new Set(["removed"]) });
    expect(row([removed, fresh])).toMatchObject({ fitted: { id: "fresh" }, found: { id: "part-C1" } });
  });

  it("puts last what may come out without a choice: what is condemned, or was taken out already", () => {
    const detail = sampleDetail({ ...base, plans: [plan("C3", "new-470u")] });
    const groups = reworkRows(detail, catalogue, new Set(["at-C1", "at-C4"]));
    expect(groups.map((one) => [one.key, one.rows.map((row) => row.position.designator)])).toEqual([
      ["new-470u", ["C3"]],
      ["nothing", ["C1"]],
    ]);
    expect(groups[1]?.replacement).toBeNull();
  });

  it("groups own parts that are alike, and keeps which one lies ready", () => {
    const own = (name: string) => samplePart(name, { id: `own-${name}`, origin: "replacement", fittedAt: null });
    const plans = ["C1", "C2"].map((name) => ({ ...plan(name, null), partInHandId: `own-${name}` }));
    const detail = sampleDetail({ ...base, plans, fittedParts: [...fittedParts, own("C1"), own("C2")] });
    const [group, ...others] = reworkRows(detail, undefined);
    expect(others).toEqual([]);
    expect(group?.rows.map((row) => [row.position.designator, row.partInHandId])).toEqual([
      ["C1", "own-C1"],
      ["C2", "own-C2"],
    ]);
  });
});
