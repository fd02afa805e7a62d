import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { notPositive, wronglyTaken } from "../../testing/refusals";
import { chargeHazard, decayedVolts, discharge, storedEnergyJoules } from "./discharge";

const farads = fc.double({ min: 1e-6, max: 1e-3, noNaN: true });
const highVolts = fc.double({ min: 60, max: 450, noNaN: true });

describe("discharge", () => {
  const bulk = { capacitanceFarads: 100e-6, startVolts: 400, targetVolts: 10, resistanceOhms: 10e3 };
  it("drains 8 J through 10 kilohms in 3.7 s at 16 W peak", () => {
    const result = discharge(bulk);
    expect(result.storedJoules).toBe(8);
    expect(result.durationSeconds).toBeCloseTo(3.6889, 4);
    expect(result.peakPowerWatts).toBe(16);
    expect(result.hazard).toBe("hazardous");
  });
  it("takes no time when it is already low", () => {
    expect(discharge({ ...bulk, startVolts: 8 })).toMatchObject({ durationSeconds: 0, removedJoules: 0 });
  });
  test.prop([farads, highVolts, fc.double({ min: 100, max: 1e6, noNaN: true })])(
    "leaves exactly the target voltage after the computed time",
    (capacitanceFarads, startVolts, resistanceOhms) => {
      const result = discharge({ capacitanceFarads, startVolts, targetVolts: 10, resistanceOhms });
      expect(decayedVolts(startVolts, result.timeConstantSeconds, result.durationSeconds)).toBeCloseTo(10, 6);
      expect(result.removedJoules).toBeCloseTo(
        storedEnergyJoules(capacitanceFarads, startVolts) - storedEnergyJoules(capacitanceFarads, 10),
        8,
      );
    },
  );
  it("refuses what no drain has, a dead short too", () => {
    const bad = { capacitanceFarads: notPositive, startVolts: notPositive, targetVolts: notPositive };
    expect(wronglyTaken(discharge, bulk, { ...bad, resistanceOhms: notPositive })).toEqual([]);
  });
  it("names the current and the time constant too, and takes away no more than is there", () => {
    expect(discharge(bulk)).toMatchObject({ peakCurrentAmps: 0.04, timeConstantSeconds: 1 });
    expect(discharge(bulk).removedJoules).toBeCloseTo(8 - 0.005, 12);
    expect(discharge({ ...bulk, startVolts: 10 }).durationSeconds).toBe(0);
  });
});

describe("decayedVolts", () => {
  it("is the start before the drain began, and a third of it after a time constant", () => {
    expect(decayedVolts(400, 2, -5)).toBe(400);
    expect(decayedVolts(400, 2, 0)).toBe(400);
    expect(decayedVolts(400, 2, 2)).toBeCloseTo(400 / Math.E, 12);
  });
  it("needs a time constant above 0", () => {
    const of = ({ timeConstantSeconds }: { timeConstantSeconds: number }) => decayedVolts(400, timeConstantSeconds, 1);
    expect(wronglyTaken(of, { timeConstantSeconds: 1 }, { timeConstantSeconds: notPositive })).toEqual([]);
  });
});

describe("chargeHazard", () => {
  it.each([
    [0, "at_target"],
    [10, "at_target"],
    [10.1, "below_elv"],
    [-60, "below_elv"],
    [60.1, "hazardous"],
    [-325, "hazardous"],
  ] as const)("calls %s V %s", (volts, hazard) => {
    expect(chargeHazard(volts)).toBe(hazard);
  });
});
