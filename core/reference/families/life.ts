import { OutOfRangeError } from "../../src/errors";
import { equivalentRippleCurrent } from "../../src/life/equivalentRippleCurrent";
import { lifeByTenKelvinRule } from "../../src/life/lifeTenKelvin";
import { lifeWithRippleHeating, type RippleHeatingSchool } from "../../src/life/lifeWithRipple";
import { missionLife } from "../../src/life/missionLife";
import { rippleFrequencyMultiplier } from "../../src/life/rippleFrequencyMultiplier";
import type { FamilyAdapter } from "../families";
import { type Inputs, list, number, optionalNumber, record, word } from "../inputs";

const rating = (inputs: Inputs) => ({
  ratedLifeHours: number(inputs, "L0_h"),
  ratedTemperatureCelsius: number(inputs, "T0_C"),
  ambientCelsius: number(inputs, "Ta_C"),
});

function heatingSchool(inputs: Inputs): RippleHeatingSchool {
  const { A } = inputs;
  if (A === 5 || A === 10 || A === "split") return A;
  throw new OutOfRangeError("A", A, "5, 10 or split");
}

const part = (inputs: Inputs) => ({
  capacitanceFarads: number(inputs, "C_uF") / 1e6,
  ratedVolts: number(inputs, "Vr_V"),
});

export const lifeFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "d-life-a": (inputs) => {
    const life = lifeByTenKelvinRule(rating(inputs));
    return { L_h: life.lifeHours, L_cap_h: life.cappedLifeHours };
  },
  "d-life-b": (inputs) => {
    const life = lifeWithRippleHeating({
      ...rating(inputs),
      rippleAmpsRms: number(inputs, "I_A"),
      ratedRippleAmpsRms: number(inputs, "Ir_A"),
      ratedCoreRiseKelvin: number(inputs, "dT0_K"),
      school: heatingSchool(inputs),
      specification: word<"ripple" | "dc">(inputs, "spec", ["ripple", "dc"], "ripple"),
    });
    return { dT_K: life.coreRiseKelvin, L_h: life.lifeHours, L_cap_h: life.cappedLifeHours };
  },
  "d-freq-mult": (inputs) => {
    const result = rippleFrequencyMultiplier(part(inputs), number(inputs, "f_Hz"));
    return { F: result.multiplierRatio, cls: result.frequencyClass };
  },
  "d-ieq": (inputs) => {
    const harmonics = list(inputs, "harmonics").map((row) => {
      if (!Array.isArray(row) || row.length !== 2) throw new OutOfRangeError("harmonics", row, "[f, I] pairs");
      return { frequencyHertz: number({ f: row[0] }, "f"), ampsRms: number({ I: row[1] }, "I") };
    });
    const result = equivalentRippleCurrent(part(inputs), harmonics);
    return { I_eq: result.equivalentAmpsRms, I_true: result.trueAmpsRms };
  },
  "d-mission": (inputs) => {
    const segments = list(inputs, "segments").map((row) => {
      const segment = record(row, "segments");
      return {
        hours: number(segment, "hours"),
        ambientCelsius: number(segment, "Ta_C"),
        rippleAmpsRms: number(segment, "I_A"),
      };
    });
    const life = missionLife(
      {
        ratedLifeHours: number(inputs, "L0_h"),
        ratedTemperatureCelsius: number(inputs, "T0_C"),
        ratedRippleAmpsRms: number(inputs, "Ir_A"),
        ratedCoreRiseKelvin: number(inputs, "dT0_K"),
        school: heatingSchool(inputs),
      },
      segments,
      optionalNumber(inputs, "off_Ta_C"),
    );
    return {
      damage_per_day: life.damagePerDay,
      life_days: life.lifeDays,
      life_years: life.lifeYears,
      life_years_cap: life.cappedLifeYears,
      share_0: life.shares[0],
    };
  },
};
