import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { unitSlip } from "./unitSlip";

const band = { low: 0.02, high: 0.046 };

describe("a slip by a thousand", () => {
  it("is asked about below half of the lowest, and where a thousandth is in the band", () => {
    expect(unitSlip(0.0003, band)).toEqual({ value: 0.0003, other: 0.3 });
    expect(unitSlip(0.0099, band)?.other).toBeCloseTo(9.9, 12);
    expect(unitSlip(0.01, band)).toBeNull();
    expect(unitSlip(41, band)?.other).toBeCloseTo(0.041, 12);
    expect(unitSlip(19.9, band)).toBeNull();
    expect(unitSlip(46.1, band)).toBeNull();
    // A dead part reads ohms: that is no slip.
    expect(unitSlip(8.3, band)).toBeNull();
  });
  it("is none where nothing is known, or nothing was read", () => {
    expect(unitSlip(0.0003, null)).toBeNull();
    expect(unitSlip(0, band)).toBeNull();
  });
  test.prop([fc.double({ min: 1e-5, max: 1e3, noNaN: true })])("asks about nothing inside the band", (value) => {
    if (value >= band.low && value <= band.high) expect(unitSlip(value, band)).toBeNull();
  });
});
