import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { lidHeightAtMetres } from "./lidHeight";
import { photoPlacement } from "./photoPlacement";

describe("lidHeightAtMetres", () => {
  const zone = { xMetres: 0.1, yMetres: 0, widthMetres: 0.05, depthMetres: 0.1, heightMetres: 0.018 };
  const board = { lidHeightMetres: 0.03, lidZones: [zone, { ...zone, widthMetres: 0.02, heightMetres: 0.012 }] };
  it("is the lowest zone over the place, else the lid's own", () => {
    expect(lidHeightAtMetres(board, 0.02, 0.02)).toBe(0.03);
    expect(lidHeightAtMetres(board, 0.11, 0.02)).toBe(0.012);
    expect(lidHeightAtMetres(board, 0.14, 0.1)).toBe(0.018);
    expect(lidHeightAtMetres({ lidHeightMetres: null, lidZones: [] }, 0, 0)).toBeNull();
    expect(() => lidHeightAtMetres(board, Number.NaN, 0)).toThrow(OutOfRangeError);
  });
});

describe("photoPlacement", () => {
  const coordinate = fc.double({ min: -4000, max: 4000, noNaN: true });
  const point = fc.tuple(coordinate, coordinate);
  test.prop([point, point, point, point])("takes both points where they belong", (p, q, pixels, more) => {
    fc.pre(Math.hypot(pixels[0] - more[0], pixels[1] - more[1]) > 1 && Math.hypot(p[0] - q[0], p[1] - q[1]) > 1);
    const { a, b, e, f } = photoPlacement({ fromPixels: pixels, toPixels: more, fromMetres: p, toMetres: q });
    for (const [[u, v], [x, y]] of [
      [pixels, p],
      [more, q],
    ] as const) {
      expect(a * u - b * v + e).toBeCloseTo(x, 5);
      expect(b * u + a * v + f).toBeCloseTo(y, 5);
    }
  });
  it("refuses one point twice", () => {
    const same = { fromPixels: [1, 1], toPixels: [1, 1], fromMetres: [0, 0], toMetres: [1, 0] } as const;
    expect(() =>
      photoPlacement({ ...same, fromPixels: [1, 1], toPixels: [1, 1], fromMetres: [0, 0], toMetres: [1, 0] }),
    ).toThrow(OutOfRangeError);
  });
});
