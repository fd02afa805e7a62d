import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { rippleFrequencyMultiplier } from "../capacitors/rippleFrequencyMultiplier";
import { OutOfRangeError } from "../errors";
import { equivalentRippleCurrent } from "../ripple/equivalentRippleCurrent";
import { lifeByTenKelvinRule } from "./lifeTenKelvin";
import { lifeWithRippleHeating } from "./lifeWithRipple";

const rating = { ratedLifeHours: 2000, ratedTemperatureCelsius: 105, ambientCelsius: 65 };
const ripple = { ...rating, rippleAmpsRms: 1, ratedRippleAmpsRms: 1, ratedCoreRiseKelvin: 5, school: "split" } as const;

describe("lifeByTenKelvinRule", () => {
  it("doubles with every ten kelvin", () => {
    expect(lifeByTenKelvinRule(rating).lifeHours).toBe(32_000);
    expect(lifeByTenKelvinRule({ ...rating, ambientCelsius: 55 }).lifeHours).toBe(64_000);
  });
  it("is never printed beyond fifteen years", () => {
    const cool = lifeByTenKelvinRule({ ...rating, ambientCelsius: 25 });
    expect(cool.lifeHours).toBeGreaterThan(131_400);
    expect(cool.cappedLifeHours).toBe(131_400);
  });
  it("computes above the rated temperature too: the caller warns", () => {
    expect(lifeByTenKelvinRule({ ...rating, ambientCelsius: 115 }).lifeHours).toBe(1000);
  });
});

describe("lifeWithRippleHeating", () => {
  it("agrees with the ten-kelvin rule at rated ripple in every school", () => {
    for (const school of [5, 10, "split"] as const) {
      expect(lifeWithRippleHeating({ ...ripple, school }).lifeHours).toBeCloseTo(32_000, 6);
    }
  });
  it("is continuous at rated ripple and stricter above it in the split school", () => {
    const life = (amps: number, school: 5 | 10 | "split") =>
      lifeWithRippleHeating({ ...ripple, rippleAmpsRms: amps, school }).lifeHours;
    expect(Math.abs(life(1.0001, "split") / life(0.9999, "split") - 1)).toBeLessThan(1e-3);
    expect(life(1.5, "split")).toBe(life(1.5, 5));
    expect(life(0.5, "split")).toBe(life(0.5, 10));
  });
  test.prop([fc.double({ min: 0, max: 4, noNaN: true })])("never lives longer with more ripple", (rippleAmpsRms) => {
    const here = lifeWithRippleHeating({ ...ripple, rippleAmpsRms }).lifeHours;
    const more = lifeWithRippleHeating({ ...ripple, rippleAmpsRms: rippleAmpsRms + 0.1 }).lifeHours;
    expect(more).toBeLessThan(here);
  });
  it("refuses the split school where it would jump", () => {
    expect(() => lifeWithRippleHeating({ ...ripple, specification: "dc" })).toThrow(OutOfRangeError);
  });
});

describe("rippleFrequencyMultiplier", () => {
  it("keeps a boundary value in its class after conversion to farads", () => {
    const classOf = (capacitanceFarads: number, ratedVolts = 50) =>
      rippleFrequencyMultiplier({ capacitanceFarads, ratedVolts }, 120).frequencyClass;
    expect([33e-6, 270e-6, 680e-6, 1800e-6, 1801e-6].map((farads) => classOf(farads))).toEqual([
      "le33",
      "le270",
      "le680",
      "le1800",
      "gt1800",
    ]);
    expect(classOf(33e-6, 400)).toBe("hv");
  });
  test.prop([fc.double({ min: 10, max: 1e6, noNaN: true })])(
    "lies in (0, 1] and never falls with frequency",
    (hertz) => {
      const part = { capacitanceFarads: 470e-6, ratedVolts: 25 };
      const here = rippleFrequencyMultiplier(part, hertz).multiplierRatio;
      expect(here > 0 && here <= 1).toBe(true);
      expect(rippleFrequencyMultiplier(part, hertz * 1.5).multiplierRatio).toBeGreaterThanOrEqual(here);
    },
  );
});

describe("equivalentRippleCurrent", () => {
  const part = { capacitanceFarads: 1e-3, ratedVolts: 25 };
  it("weighs low frequencies heavier than their amperes", () => {
    const { equivalentAmpsRms, trueAmpsRms } = equivalentRippleCurrent(part, [
      { frequencyHertz: 100, ampsRms: 0.3 },
      { frequencyHertz: 100e3, ampsRms: 0.4 },
    ]);
    expect(trueAmpsRms).toBeCloseTo(0.5, 12);
    expect(equivalentAmpsRms).toBeGreaterThan(0.6);
  });
  it("refuses an empty list and a negative current", () => {
    expect(() => equivalentRippleCurrent(part, [])).toThrow(OutOfRangeError);
    expect(() => equivalentRippleCurrent(part, [{ frequencyHertz: 100, ampsRms: -1 }])).toThrow(OutOfRangeError);
  });
});

describe("a solid polymer", () => {
  const rating = {
    ratedLifeHours: 2000,
    ratedTemperatureCelsius: 105,
    ambientCelsius: 65,
    rippleAmpsRms: 2,
    ratedRippleAmpsRms: 2,
    ratedCoreRiseKelvin: 5,
    school: "split",
    decadeKelvin: 20,
  } as const;
  const { decadeKelvin: _, ...liquid } = rating;
  it("lives ten times longer for twenty kelvin: 2000 h at 105 degrees are 200,000 h at 65", () => {
    expect(lifeWithRippleHeating(rating).lifeHours).toBeCloseTo(200e3, 3);
    // At half its ripple it is 3.75 kelvin cooler inside.
    expect(lifeWithRippleHeating({ ...rating, rippleAmpsRms: 1 }).lifeHours).toBeCloseTo(200e3 * 10 ** (3.75 / 20), 3);
    expect(lifeWithRippleHeating(liquid).lifeHours).toBeCloseTo(32e3, 3);
    expect(() => lifeWithRippleHeating({ ...rating, decadeKelvin: 0 })).toThrow(OutOfRangeError);
  });
});
