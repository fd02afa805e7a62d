import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { negative, wronglyTaken } from "../../testing/refusals";
import { chargeDanger, dangerLevels, fallOfKilogramMetres } from "./chargeDanger";

describe("chargeDanger", () => {
  it("knows a deadly bulk from a faint output bank of the same energy", () => {
    expect(chargeDanger(10.6, 325)).toBe("deadly");
    expect(chargeDanger(10.6, 48)).toBe("faint");
    expect(chargeDanger(0.05, 325)).toBe("startling");
  });
  test.prop([fc.double({ min: 0, max: 100, noNaN: true }), fc.double({ min: 0, max: 100, noNaN: true })])(
    "never grows milder with energy",
    (a, b) => {
      const level = (joules: number) => dangerLevels.indexOf(chargeDanger(joules, 325));
      expect(level(Math.max(a, b))).toBeGreaterThanOrEqual(level(Math.min(a, b)));
    },
  );
  it("compares with a falling kilogram: 9.81 J from a metre", () => {
    expect(fallOfKilogramMetres(9.81)).toBeCloseTo(1, 12);
    const of = (one: { storedJoules: number }) => fallOfKilogramMetres(one.storedJoules);
    expect(wronglyTaken(of, { storedJoules: 1 }, { storedJoules: negative })).toEqual([]);
  });
  it.each([
    [100, 60, "faint"],
    [100, 60.1, "deadly"],
    [0.249, 325, "startling"],
    [0.25, 325, "severe"],
    [9.99, 325, "severe"],
    [10, 325, "deadly"],
  ] as const)("calls %s J at %s V %s: each band begins at its edge", (joules, volts, level) => {
    expect(chargeDanger(joules, volts)).toBe(level);
  });
  it("refuses what no charge has", () => {
    const of = (one: { storedJoules: number; volts: number }) => chargeDanger(one.storedJoules, one.volts);
    expect(wronglyTaken(of, { storedJoules: 1, volts: 100 }, { storedJoules: negative, volts: negative })).toEqual([]);
  });
});
