import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import type { DrainKitItem } from "../facts/drainKit";
import { drainPlan } from "./drainPlan";

const bulk = { capacitanceFarads: 100e-6, startVolts: 325, bleederOhms: null };
const limits = { workingVolts: 10, longestSeconds: 20 };
const resistor: DrainKitItem = { name: "10k 5 W", kind: "resistor", count: 1, ohms: 10e3, watts: 5, volts: 500 };
const lamp: DrainKitItem = { name: "60 W lamp", kind: "lamp", count: 1, ohms: null, watts: 60, volts: 230 };
const codes = (item: DrainKitItem, store = bulk) => drainPlan(store, item, limits).refusals.map((one) => one.code);

describe("drainPlan", () => {
  it("lets a fit resistor do it, with the times of the closed form", () => {
    const plan = drainPlan(bulk, resistor, limits);
    expect(plan.refusals).toEqual([]);
    expect(plan.secondsToTarget).toBeCloseTo(Math.log(32.5), 3);
    expect(plan.secondsToTouchLimit).toBeLessThan(plan.secondsToWorkingLimit);
    expect(plan.peakPowerEachWatts).toBeCloseTo(325 ** 2 / 10e3, 6);
  });
  it("refuses too little voltage rating, too much pulse power, and too slow", () => {
    expect(codes({ ...resistor, volts: 350 })).toEqual(["volts_exceeded"]);
    expect(codes({ ...resistor, ohms: 1000 })).toEqual(["pulse_power_exceeded"]);
    expect(codes({ ...resistor, ohms: 470e3 })).toEqual(["too_slow"]);
  });
  it("shares voltage and power among bodies in series", () => {
    const two = drainPlan(bulk, { ...resistor, count: 2, ohms: 4700, watts: 2, volts: 250 }, limits);
    expect(two.voltsEach).toBe(162.5);
    expect(two.totalOhms).toBe(9400);
    expect(two.peakPowerEachWatts).toBeCloseTo(325 ** 2 / 9400 / 2, 6);
  });
  it("lets a mains lamp drain a mains bulk, but not a PFC bulk by itself", () => {
    expect(codes(lamp)).toEqual([]);
    expect(codes(lamp, { ...bulk, startVolts: 400 })).toContain("volts_exceeded");
    expect(codes({ ...lamp, count: 2 }, { ...bulk, startVolts: 400 })).toEqual([]);
  });
  it("sees a small filament overheat on a large store", () => {
    expect(codes({ ...lamp, watts: 15 }, { ...bulk, capacitanceFarads: 680e-6 })).toContain("filament_too_hot");
  });
  it("heats two lamps in series less than one", () => {
    const one = drainPlan(bulk, lamp, limits).course.peakKelvin ?? 0;
    const two = drainPlan(bulk, { ...lamp, count: 2 }, limits).course.peakKelvin ?? 0;
    expect(two).toBeLessThan(one);
  });
  it("refuses to compute a resistor of 0 ohms", () => {
    expect(() => drainPlan(bulk, { ...resistor, ohms: 0 }, limits)).toThrow(OutOfRangeError);
  });
});
