import { describe, expect, it } from "vitest";
import { negative, notPositive, wronglyTaken } from "../../testing/refusals";
import { discharge, storedEnergyJoules } from "./discharge";
import { type DrainLoad, drainCourse, lampFromRating } from "./drainPath";

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
  it("divides the voltage between its own resistance and the load, and keeps the time constant of both", () => {
    const course = drainCourse({ ...bulk, esrOhms: 100, load: resistor(900) }, [10]);
    expect(course.samples[0]).toEqual({ seconds: 0, volts: 292.5 });
    expect(course).toMatchObject({ peakCurrentAmps: 0.325, peakKelvin: null, storedJoules: 5.28125 });
    expect(course.peakPowerWatts).toBeCloseTo(0.325 * 292.5, 9);
    expect(course.secondsToTargets[0]).toBeCloseTo(0.1 * Math.log(292.5 / 10), 5);
    // A tenth of the energy heats the capacitor itself.
    expect(course.loadJoules / (5.28125 * (1 - (10 / 292.5) ** 2))).toBeCloseTo(0.9, 4);
  });
  it("drains faster beside a bleeder, which takes its share", () => {
    const course = drainCourse({ ...bulk, bleederOhms: 3000, load: resistor(1000) }, [10]);
    expect(course.secondsToTargets[0]).toBeCloseTo(0.075 * Math.log(32.5), 5);
    expect(course.loadJoules / course.bleederJoules).toBeCloseTo(3, 6);
    expect(drainCourse({ ...bulk, load: resistor(1000) }, [10]).bleederJoules).toBe(0);
  });
  it("gives about 120 points of a long course, the first and the last among them", () => {
    const { samples, secondsToTargets } = drainCourse({ ...bulk, load: resistor(1000) }, [10]);
    expect(samples.length).toBeGreaterThan(100);
    expect(samples.length).toBeLessThan(260);
    expect(samples[0]?.seconds).toBe(0);
    expect(samples.at(-1)?.seconds).toBeGreaterThanOrEqual(secondsToTargets[0] as number);
  });
  it("cools a lamp again once the capacitor is nearly empty", () => {
    const hot = drainCourse({ ...bulk, load: lamp }, [60]);
    const cold = drainCourse({ ...bulk, load: lamp }, [60, 1]);
    expect(cold.peakKelvin).toBeCloseTo(hot.peakKelvin as number, 0);
    expect(cold.secondsToTargets[1] as number).toBeLessThan(1);
  });
  it("refuses what no store and no load has", () => {
    type Flat = { capacitanceFarads: number; startVolts: number; esrOhms: number; bleederOhms: number };
    const of = ({ bleederOhms, ...path }: Flat) => drainCourse({ ...path, bleederOhms, load: resistor(1000) }, [10]);
    const bad = { capacitanceFarads: notPositive, startVolts: notPositive, esrOhms: negative };
    expect(wronglyTaken(of, { ...bulk, bleederOhms: 1e4 }, { ...bad, bleederOhms: notPositive })).toEqual([]);
    const ofLoad = ({ ohms, targetVolts }: { ohms: number; targetVolts: number }) =>
      drainCourse({ ...bulk, load: resistor(ohms) }, [targetVolts]);
    const both = { ohms: notPositive, targetVolts: notPositive };
    expect(wronglyTaken(ofLoad, { ohms: 1000, targetVolts: 10 }, both)).toEqual([]);
    const ofLamp = (one: { ratedVolts: number; ratedWatts: number }) => lampFromRating(one.ratedVolts, one.ratedWatts);
    const rating = { ratedVolts: notPositive, ratedWatts: notPositive };
    expect(wronglyTaken(ofLamp, { ratedVolts: 230, ratedWatts: 60 }, rating)).toEqual([]);
  });
});
