import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { clamp } from "./clamp";
import { addComplex, reciprocalComplex } from "./complex";
import { interpolate } from "./interpolate";
import { logistic, logit } from "./logistic";
import { complementaryErrorFunction, normalDistribution } from "./normalDistribution";
import { requireBetween, requireFinite, requireNonNegative, requirePositive } from "./requireRange";
import { seededRandom } from "./seededRandom";

const finite = fc.double({ min: -1e6, max: 1e6, noNaN: true });

describe("normalDistribution", () => {
  // Abramowitz and Stegun, table 26.1
  it.each([
    [0, 0.5],
    [1, 0.841344746068543],
    [1.6448536269514722, 0.95],
    [-2.5, 0.0062096653257761],
    [4, 0.99996832875816688],
  ])("is right at %s", (z, expected) => {
    expect(Math.abs(normalDistribution(z) - expected)).toBeLessThan(1e-13);
  });

  it("keeps relative accuracy in the far tail, where 1 - erf would give zero", () => {
    // erfc(5), Abramowitz and Stegun table 7.1
    expect(complementaryErrorFunction(5) / 1.5374597944280349e-12 - 1).toBeLessThan(1e-10);
    expect(normalDistribution(-8)).toBeGreaterThan(0);
  });

  test.prop([fc.double({ min: -8, max: 8, noNaN: true })])("is symmetric", (z) => {
    expect(normalDistribution(z) + normalDistribution(-z)).toBeCloseTo(1, 12);
  });

  it("joins smoothly where series and continued fraction meet", () => {
    const step = complementaryErrorFunction(2.5 - 1e-9) - complementaryErrorFunction(2.5 + 1e-9);
    expect(step).toBeGreaterThan(0);
    expect(step).toBeLessThan(1e-10);
  });
});

describe("logistic and logit", () => {
  test.prop([fc.double({ min: -20, max: 20, noNaN: true })])("undo each other", (x) => {
    expect(logit(logistic(x))).toBeCloseTo(x, 6);
  });
  it("do not overflow at the ends", () => {
    expect(logistic(-1000)).toBe(0);
    expect(logistic(1000)).toBe(1);
    expect(logit(0)).toBe(Number.NEGATIVE_INFINITY);
  });
});

describe("interpolate", () => {
  const rows = [
    [1, 10],
    [3, 30],
    [4, 0],
  ] as const;
  it("meets the rows, runs straight between them and stays constant outside", () => {
    expect([1, 2, 3, 3.5, 4].map((x) => interpolate(x, rows))).toEqual([10, 20, 30, 15, 0]);
    expect(interpolate(-5, rows)).toBe(10);
    expect(interpolate(99, rows)).toBe(0);
  });
  test.prop([finite])("never leaves the range of its rows", (x) => {
    const y = interpolate(x, rows);
    expect(y >= 0 && y <= 30).toBe(true);
  });
});

describe("complex", () => {
  test.prop([fc.double({ min: 0.01, max: 100, noNaN: true }), fc.double({ min: -100, max: 100, noNaN: true })])(
    "a number times its reciprocal is one",
    (re, im) => {
      const inverse = reciprocalComplex({ re, im });
      expect(re * inverse.re - im * inverse.im).toBeCloseTo(1, 10);
      expect(re * inverse.im + im * inverse.re).toBeCloseTo(0, 10);
    },
  );
  it("adds part by part", () => {
    expect(addComplex({ re: 1, im: 2 }, { re: 3, im: -5 })).toEqual({ re: 4, im: -3 });
  });
});

describe("guards", () => {
  it.each([Number.NaN, Number.POSITIVE_INFINITY, -1])("refuse %s with the argument's name", (value) => {
    for (const guard of [requirePositive, requireNonNegative]) {
      expect(() => guard("amps", value)).toThrow(OutOfRangeError);
      expect(() => guard("amps", value)).toThrow(/^amps must be/);
    }
  });
  it("differ at zero and at the open ends of an interval", () => {
    expect(requireNonNegative("x", 0)).toBe(0);
    expect(() => requirePositive("x", 0)).toThrow(OutOfRangeError);
    expect(() => requireBetween("x", 1, 0, 1)).toThrow(OutOfRangeError);
    expect(requireBetween("x", 0.5, 0, 1)).toBe(0.5);
    expect(() => requireFinite("x", Number.NEGATIVE_INFINITY)).toThrow(OutOfRangeError);
  });
});

describe("seededRandom", () => {
  it("repeats itself under a seed and differs between seeds", () => {
    const draw = (seed: number) => Array.from({ length: 5 }, seededRandom(seed));
    expect(draw(7)).toEqual(draw(7));
    expect(draw(7)).not.toEqual(draw(8));
  });
  it("fills [0, 1) evenly enough for invented data", () => {
    const values = Array.from({ length: 20_000 }, seededRandom(1));
    expect(values.every((value) => value >= 0 && value < 1)).toBe(true);
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    expect(Math.abs(mean - 0.5)).toBeLessThan(0.01);
  });
});

test.prop([finite, finite, finite])("clamp returns a bound or the value itself", (x, a, b) => {
  const [low, high] = a < b ? [a, b] : [b, a];
  const clamped = clamp(x, low, high);
  expect(clamped >= low && clamped <= high && (clamped === x || clamped === low || clamped === high)).toBe(true);
});
