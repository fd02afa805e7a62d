import { describe, expect, it } from "vitest";
import { falsifiedBy } from "./falsified";
import type { QuantityKind } from "./reading";

const clean = { isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false };
const all: readonly QuantityKind[] = ["dc_voltage", "ripple_voltage", "ac_voltage", "time", "power", "leakage_current"];
const falsified = (more: Partial<typeof clean>, isOnMainsSide = false, isPowered = true) =>
  all.filter((quantity) => falsifiedBy({ quantity, rig: { ...clean, ...more }, isPowered }, isOnMainsSide) !== null);

describe("what a rig falsifies", () => {
  it("is everything behind a lamp or a limiter, but what is smelt or heard", () => {
    expect(falsified({ isSeriesLamp: true })).toEqual(all);
    expect(falsified({ isElectronicLimiter: true })).toEqual(all);
    const rig = { ...clean, isSeriesLamp: true };
    expect(falsifiedBy({ quantity: "observation", rig, isPowered: true })).toBeNull();
  });
  it("is timing, power and leakage behind a transformer, and nothing of a probe on the mains side", () => {
    expect(falsified({ isIsolationTransformer: true })).toEqual(["time", "power", "leakage_current"]);
    expect(falsified({ isIsolationTransformer: true }, true)).toEqual([]);
    expect(falsified({ isSeriesLamp: true, isIsolationTransformer: true }, true)).toEqual(all);
  });
  it("is nothing without power, and nothing without a rig", () => {
    expect(falsified({ isSeriesLamp: true }, false, false)).toEqual([]);
    expect(falsified({})).toEqual([]);
  });
});
