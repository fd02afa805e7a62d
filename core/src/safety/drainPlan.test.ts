import { describe, expect, it } from "vitest";
import { judgementConstants } from "../constants/judgementConstants";
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
  it("gives each body its share of the energy, and a lamp no resistance of its own", () => {
    const two = drainPlan(bulk, { ...resistor, count: 2, ohms: 4700, watts: 2, volts: 250 }, limits);
    expect(two.energyEachJoules).toBeCloseTo(two.course.loadJoules / 2, 9);
    expect(drainPlan(bulk, lamp, limits).totalOhms).toBeNull();
  });
  it("refuses beyond a limit, not at it, and says by how much", () => {
    // The rating with its margin: 0.8 of 406.25 V is 325 V.
    expect(codes({ ...resistor, volts: 406.25 })).toEqual([]);
    expect(drainPlan(bulk, { ...resistor, volts: 400 }, limits).refusals).toEqual([
      { code: "volts_exceeded", got: 325, limit: 320 },
    ]);
    expect(codes(lamp, { ...bulk, startVolts: 1.6 * 230 })).not.toContain("volts_exceeded");
    const seconds = drainPlan(bulk, resistor, limits).secondsToWorkingLimit;
    expect(drainPlan(bulk, resistor, { ...limits, longestSeconds: seconds }).refusals).toEqual([]);
    expect(drainPlan(bulk, resistor, { ...limits, longestSeconds: seconds * 0.999 }).refusals).toHaveLength(1);
  });
  it("takes the pulse factor of the largest known body that is not larger, of a smaller one the smallest's", () => {
    const parts = [
      ["1 W", 1, 500, 3],
      ["5 W", 5, 500, 10],
    ] as typeof judgementConstants.F.parts;
    const limitOf = (watts: number) =>
      drainPlan(bulk, { ...resistor, ohms: 100, watts }, limits, { ...judgementConstants.F, parts }).refusals.find(
        (one) => one.code === "pulse_power_exceeded",
      )?.limit;
    expect([0.5, 1, 4.9, 5, 7].map(limitOf)).toEqual([1.5, 3, 14.7, 50, 70].map((limit) => expect.closeTo(limit, 9)));
  });
  it("refuses to compute a resistor of 0 ohms", () => {
    expect(() => drainPlan(bulk, { ...resistor, ohms: 0 }, limits)).toThrow(OutOfRangeError);
  });
});
