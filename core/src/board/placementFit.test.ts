import { describe, expect, it } from "vitest";
import { fitPlacements, type RawPlacement } from "./placementFit";

const board = { widthMetres: 0.1, depthMetres: 0.06 };
const at = (x: number, y: number, side: RawPlacement["side"] = "top"): RawPlacement => ({
  ...{ xMetres: x / 1e3, yMetres: y / 1e3, side },
});
const fit = (rows: readonly RawPlacement[], view: Partial<Parameters<typeof fitPlacements>[2]> = {}) => {
  const found = fitPlacements(rows, board, { isYUp: true, isBottomMirrored: false, ...view });
  const places = found.rows.map((one) => [one.xMetres, one.yMetres].map((value) => Number((value * 1e3).toFixed(6))));
  return { places, origin: found.origin, outside: found.outsideCount };
};

describe("fitPlacements", () => {
  it("counts y downward from a list that counts it upward from the lower left corner", () => {
    expect(fit([at(10, 5), at(90, 60)])).toEqual({
      places: [
        [10, 55],
        [90, 0],
      ],
      origin: "corner",
      outside: 0,
    });
    expect(fit([at(10, 5)], { isYUp: false }).places).toEqual([[10, 5]]);
  });

  it("mirrors the lower side alone, by the board's width or by its sign", () => {
    const rows = [at(10, 5), at(10, 5, "bottom"), at(20, 5, null)];
    expect(fit(rows, { isBottomMirrored: true }).places.map(([x]) => x)).toEqual([10, 90, 20]);
    const signed = [at(10, 5), at(-30, 5, "bottom"), at(-40, 5, "bottom")];
    expect(fit(signed, { isBottomMirrored: true })).toMatchObject({ origin: "corner" });
    expect(fit(signed, { isBottomMirrored: true }).places.map(([x]) => x)).toEqual([10, 30, 40]);
  });

  it("lays a list with another origin on the middle of the board, and counts what does not fit", () => {
    const { places, origin, outside } = fit([at(-20, -10), at(20, 10)]);
    expect([places, origin, outside]).toEqual([
      [
        [30, 40],
        [70, 20],
      ],
      "centred",
      0,
    ]);
    expect(fit([at(0, 0), at(300, 0)])).toMatchObject({ origin: "centred", outside: 2 });
  });

  it("takes a part a hair over the edge as on it, and no more than that", () => {
    expect(fit([at(100.9, 30)])).toMatchObject({ places: [[100, 30]], origin: "corner" });
    expect(fit([at(101.1, 30)]).origin).toBe("centred");
    expect(() => fitPlacements([], { ...board, widthMetres: 0 }, { isYUp: true, isBottomMirrored: false })).toThrow();
  });
});
