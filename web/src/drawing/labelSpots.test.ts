import { describe, expect, it } from "vitest";
import { type Labelled, labelSpots, outlineNameScale } from "./labelSpots";

const can = (id: string, x: number, y: number, more: Partial<Labelled> = {}): Labelled => ({
  ...{ id, x, y, radius: 20, name: id, value: "1000 µF", ...more },
});

describe("labelSpots", () => {
  it("puts a name and what its can holds below it where nothing stands there", () => {
    expect(labelSpots([can("C1", 100, 100)], []).get("C1")).toEqual({ x: 0, y: 38, hasValue: true });
  });
  it("goes above, right or left of it where a neighbour, an outline or the edge of another name is in the way", () => {
    const below = { left: 60, top: 122, width: 80, height: 30 };
    expect(labelSpots([can("C1", 100, 100)], [below]).get("C1")).toEqual({ x: 0, y: -27, hasValue: false });
    const above = { left: 60, top: 50, width: 80, height: 30 };
    expect(labelSpots([can("C1", 100, 100)], [below, above]).get("C1")).toMatchObject({ y: 4, hasValue: false });
    expect(labelSpots([can("C1", 100, 100)], [below, above]).get("C1")?.x).toBeGreaterThan(20);
    const right = { left: 122, top: 90, width: 60, height: 20 };
    expect(labelSpots([can("C1", 100, 100)], [below, above, right]).get("C1")?.x).toBeLessThan(-20);
  });
  it("drops the second line before it runs into a neighbour's, and never writes one name over another", () => {
    const close = [can("C215", 100, 100), can("C216", 146, 100), can("C217", 192, 100)];
    const spots = labelSpots(close, []);
    expect(close.map((one) => spots.get(one.id)?.hasValue)).toEqual([true, false, true]);
    const stacked = labelSpots([can("C203", 100, 100), can("C204", 100, 143)], []);
    expect(stacked.get("C203")?.y).toBe(-27);
    expect(stacked.get("C204")?.y).toBe(38);
  });
  it("keeps to below where every place covers as much", () => {
    const everywhere = { left: -500, top: -500, width: 2000, height: 2000 };
    expect(labelSpots([can("C1", 100, 100)], [everywhere]).get("C1")).toEqual({ x: 0, y: 38, hasValue: false });
  });
});

it("a name shrinks to its outline, as far as it can still be read", () => {
  expect([outlineNameScale("R6", 40), outlineNameScale("BR101", 30), outlineNameScale("BR101", 5)]).toEqual([
    1,
    30 / 39,
    0.7,
  ]);
});
