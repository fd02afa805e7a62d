import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { NoBracketError, OutOfRangeError } from "../errors";
import { bracketedRoot } from "./bracketedRoot";
import { median } from "./median";
import { normalDistribution, normalQuantile } from "./normalDistribution";
import { percentile } from "./percentile";

describe("bracketedRoot", () => {
  it("finds a root to the last bit, whichever end is positive", () => {
    expect(bracketedRoot((x) => x * x - 2, 0, 2)).toBeCloseTo(Math.SQRT2, 15);
    expect(bracketedRoot((x) => 2 - x * x, 0, 2)).toBeCloseTo(Math.SQRT2, 15);
    expect(bracketedRoot((x) => x - 1e-200, 0, 1) / 1e-200).toBeCloseTo(1, 12);
  });
  it("takes an end at which the function is 0", () => {
    expect(bracketedRoot((x) => x, 0, 5)).toBe(0);
    expect(bracketedRoot((x) => x - 5, 0, 5)).toBe(5);
  });
  it("stops after so many halvings where that is enough", () => {
    expect(bracketedRoot((x) => x - 0.3, 0, 1, 1)).toBe(0.25);
    expect(bracketedRoot((x) => x - 0.3, 0, 1, 2)).toBe(0.375);
  });
  it.each([
    ["both ends above", (x: number) => x * x + 1, 1, 5],
    ["both ends below", (x: number) => -x * x - 1, -1, -5],
    ["no number at an end", (x: number) => Math.sqrt(x - 1), Number.NaN, 1],
  ])("never gives an end for a root: %s", (_name, of, valueAtLow, valueAtHigh) => {
    let told: unknown;
    try {
      bracketedRoot(of, 0, 2);
    } catch (error) {
      told = error;
    }
    expect(told).toBeInstanceOf(NoBracketError);
    expect(told).toMatchObject({ name: "NoBracketError", low: 0, high: 2, valueAtLow, valueAtHigh });
    expect((told as Error).message).toMatch(/no change of sign between 0 .* and 2 /);
  });
});

describe("median and percentile", () => {
  it("are the middle, or the mean of the two in the middle, in whatever order", () => {
    expect(median([7])).toBe(7);
    expect(median([10, 1, 3])).toBe(3);
    expect(median([10, 1, 2, 3])).toBe(2.5);
    expect(median([-10, -9, 100])).toBe(-9);
  });
  it("go linearly between neighbours and end at least and most", () => {
    expect([0, 0.25, 0.5, 0.9, 1].map((share) => percentile([5, 4, 3, 2, 1], share))).toEqual([1, 2, 3, 4.6, 5]);
    expect(percentile([1, Infinity, Infinity], 1)).toBe(Infinity);
  });
  it("leave the list as it was, and refuse an empty one and a share outside 0 to 1", () => {
    const values = [3, 1, 2];
    median(values);
    expect(values).toEqual([3, 1, 2]);
    expect(() => median([])).toThrow(OutOfRangeError);
    for (const share of [-0.01, 1.01, Number.NaN]) expect(() => percentile([1], share)).toThrow("shareRatio");
  });
  test.prop([fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 1, maxLength: 40 })])(
    "have as many values below as above",
    (values) => {
      const middle = median(values);
      const half = values.length / 2;
      expect(values.filter((one) => one < middle).length).toBeLessThanOrEqual(half);
      expect(values.filter((one) => one > middle).length).toBeLessThanOrEqual(half);
    },
  );
});

describe("normalQuantile", () => {
  test.prop([fc.double({ min: 1e-12, max: 1 - 1e-12, noNaN: true })])("undoes the distribution", (p) => {
    expect(normalDistribution(normalQuantile(p)) / p).toBeCloseTo(1, 9);
  });
  it("has no answer at the ends", () => {
    for (const p of [0, 1, -1, Number.NaN]) expect(() => normalQuantile(p)).toThrow(OutOfRangeError);
  });
});
