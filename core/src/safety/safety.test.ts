import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { judgementConstants } from "../constants/judgementConstants";
import { absorptionRecovery } from "../discharge/absorptionRecovery";
import { chargeHazard, decayedVolts, discharge, storedEnergyJoules } from "../discharge/discharge";
import { type DrainLoad, drainCourse, lampFromRating } from "../discharge/drainPath";
import { OutOfRangeError } from "../errors";
import { dischargeResistor } from "./dischargeResistor";
import { mainsInrush, stiffInrush } from "./inrush";

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
  it("refuses a zero resistor: a dead short is no drain", () => {
    expect(() => discharge({ ...bulk, resistanceOhms: 0 })).toThrow(OutOfRangeError);
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

describe("dischargeResistor", () => {
  test.prop([farads, highVolts, fc.double({ min: 1, max: 60, noNaN: true })])(
    "never proposes a body beyond its voltage or pulse rating, nor one that is too slow",
    (capacitanceFarads, startVolts, longestSeconds) => {
      const chain = dischargeResistor({ capacitanceFarads, startVolts, targetVolts: 10, longestSeconds });
      if (!chain) return;
      const body = judgementConstants.F.parts.find(([name]) => name === chain.bodyName);
      if (!body) throw new Error("proposed a body that is not in the list");
      const [, watts, volts, pulse] = body;
      expect(chain.voltsEach).toBeLessThanOrEqual(0.8 * volts + 1e-6);
      expect(chain.peakPowerEachWatts).toBeLessThanOrEqual(pulse * watts * (1 + 1e-9));
      expect(chain.durationSeconds).toBeLessThanOrEqual(longestSeconds * (1 + 1e-9));
      expect(chain.totalOhms).toBeCloseTo(chain.count * chain.eachOhms, 6);
    },
  );
  it("finds nothing where no chain of four can do it in time", () => {
    const huge = { capacitanceFarads: 0.01, startVolts: 450, targetVolts: 10, longestSeconds: 0.05 };
    expect(dischargeResistor(huge)).toBeNull();
  });
  it("refuses a target that is not below the start", () => {
    const question = { capacitanceFarads: 1e-4, startVolts: 10, targetVolts: 10, longestSeconds: 5 };
    expect(() => dischargeResistor(question)).toThrow(OutOfRangeError);
  });
});

describe("absorptionRecovery", () => {
  it("brings 8 to 40 V back after a bulk at 400 V was drained to nothing", () => {
    expect(absorptionRecovery({ startVolts: 400, remainingVolts: 0 })).toEqual({
      lowVolts: 8,
      highVolts: 40,
      mustDrainAgain: true,
      mayExceedTouchLimit: false,
    });
  });
  it("asks for nothing more on a small rail", () => {
    expect(absorptionRecovery({ startVolts: 24, remainingVolts: 0 }).mustDrainAgain).toBe(false);
  });
  it("refuses fractions that are not low <= high < 1", () => {
    const odd = { startVolts: 400, remainingVolts: 0, lowRatio: 0.2, highRatio: 0.1 };
    expect(() => absorptionRecovery(odd)).toThrow(OutOfRangeError);
  });
});

describe("drainCourse", () => {
  const bulk = { capacitanceFarads: 100e-6, startVolts: 325, esrOhms: 0, bleederOhms: null };
  const resistor = (ohms: number): DrainLoad => ({ kind: "resistor", ohms });
  const lamp: DrainLoad = { kind: "lamp", lamp: lampFromRating(230, 60) };

  it("agrees with the closed form through a resistor", () => {
    const closed = discharge({ capacitanceFarads: 100e-6, startVolts: 325, targetVolts: 10, resistanceOhms: 2200 });
    const [seconds] = drainCourse({ ...bulk, load: resistor(2200) }, [10]).secondsToTargets;
    expect((seconds ?? 0) / closed.durationSeconds).toBeCloseTo(1, 4);
  });
  it("puts the energy that left the capacitor into load and bleeder, and nowhere else", () => {
    for (const load of [resistor(1000), lamp]) {
      const course = drainCourse({ ...bulk, bleederOhms: 10e3, load }, [10]);
      const left = course.storedJoules - storedEnergyJoules(100e-6, 10);
      expect((course.loadJoules + course.bleederJoules) / left).toBeCloseTo(1, 2);
    }
  });
  it("starts a lamp at its cold resistance, far above its rating, and heats it", () => {
    const course = drainCourse({ ...bulk, load: lamp }, [60, 10]);
    expect(course.peakPowerWatts).toBeGreaterThan(20 * 60);
    expect(course.peakKelvin).toBeGreaterThan(1200);
    expect(course.secondsToTargets[0]).toBeLessThan(course.secondsToTargets[1] as number);
  });
  it("takes no time to a target that lies above the start, and falls all the way in its samples", () => {
    const { samples, secondsToTargets } = drainCourse({ ...bulk, startVolts: 40, load: resistor(1000) }, [60, 10]);
    expect(secondsToTargets[0]).toBe(0);
    expect(samples.at(-1)?.volts).toBeLessThanOrEqual(10);
    for (const [i, sample] of samples.entries()) expect(sample.volts).toBeLessThan(samples[i - 1]?.volts ?? 41);
  });
  it("models a lamp from its print as the reference does", () => {
    const { coldOhms, thermalResistanceKelvinPerWatt, heatCapacityJoulesPerKelvin } = lampFromRating(230, 60);
    expect(coldOhms).toBeCloseTo(71.788, 2);
    expect(thermalResistanceKelvinPerWatt).toBeCloseTo(41.783, 2);
    expect(heatCapacityJoulesPerKelvin).toBeCloseTo(0.002872, 5);
  });
  it("refuses a dead short and a store without charge", () => {
    expect(() => drainCourse({ ...bulk, load: resistor(0) }, [10])).toThrow(OutOfRangeError);
    expect(() => drainCourse({ ...bulk, startVolts: 0, load: lamp }, [10])).toThrow(OutOfRangeError);
  });
});

describe("inrush", () => {
  const input = {
    mainsVoltsRms: 230,
    mainsHertz: 50,
    sourceOhms: 1,
    limiterOhms: 5,
    capacitanceFarads: 1e-4,
    esrOhms: 0.35,
  };
  it("peaks at what the resistances allow at the crest", () => {
    expect(mainsInrush(input).peakAmps).toBeCloseTo((230 * Math.SQRT2 - 1.8) / 6.39, 6);
  });
  it("grows with the capacitor, and stays below the stiff source's bound", () => {
    const small = mainsInrush(input).firstPulseAmpsSquaredSeconds;
    expect(mainsInrush({ ...input, capacitanceFarads: 2e-4 }).firstPulseAmpsSquaredSeconds).toBeGreaterThan(small);
    const bound = stiffInrush({ capacitanceFarads: 1e-4, peakVolts: 230 * Math.SQRT2, seriesOhms: 6.39 });
    expect(small).toBeLessThan(bound.ampsSquaredSeconds);
  });
  it("refuses a negative limiter", () => {
    expect(() => mainsInrush({ ...input, limiterOhms: -1 })).toThrow(OutOfRangeError);
  });
});
