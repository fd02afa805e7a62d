import { rippleFrequencyMultiplier } from "../../src/capacitors/rippleFrequencyMultiplier";
import { OutOfRangeError } from "../../src/errors";
import { lifeFromCoreTemperature } from "../../src/life/lifeFromCore";
import { lifeScatter } from "../../src/life/lifeScatter";
import { lifeByTenKelvinRule } from "../../src/life/lifeTenKelvin";
import { lifeWithAgeing } from "../../src/life/lifeWithAgeing";
import { lifeWithRippleHeating, type RippleHeatingSchool } from "../../src/life/lifeWithRipple";
import { missionLife } from "../../src/life/missionLife";
import { returnChances } from "../../src/life/returnChance";
import { equivalentRippleCurrent } from "../../src/ripple/equivalentRippleCurrent";
import type { FamilyAdapter } from "../adapter";
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

function flag(inputs: Inputs, key: string): boolean {
  const value = inputs[key];
  if (typeof value !== "boolean") throw new OutOfRangeError(key, value, "true or false");
  return value;
}

export const lifeFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "d-life-c": (inputs) => {
    const result = lifeFromCoreTemperature({
      ...rating(inputs),
      ratedCoreRiseKelvin: number(inputs, "dT0_K"),
      rippleAmpsRms: number(inputs, "I_A"),
      frequencyHertz: number(inputs, "f_Hz"),
      seriesResistance20CelsiusOhms: number(inputs, "Rs20"),
      oxideLossRatio: number(inputs, "tan_ox"),
      capacitanceFarads: number(inputs, "C_F"),
      diameterMetres: number(inputs, "D_mm") / 1e3,
      heightMetres: number(inputs, "L_mm") / 1e3,
      heatTransfer: inputs.h === "still" || inputs.h === "handbook" ? inputs.h : number(inputs, "h"),
      volts: number(inputs, "V"),
      ratedVolts: number(inputs, "Vr"),
      voltageLaw: word(inputs, "kv", ["none", "power", "linear"]),
      voltageExponent: optionalNumber(inputs, "n"),
    });
    return {
      dT_core_K: result.coreRiseKelvin,
      esr: result.esrOhms,
      Kv: result.voltageFactorRatio,
      L_h: result.lifeHours,
      L_cap_h: result.cappedLifeHours,
    };
  },
  "d-ageing": (inputs) => {
    const A = heatingSchool(inputs);
    if (A === "split") throw new OutOfRangeError("A", A, "5 or 10");
    const result = lifeWithAgeing({
      ...rating(inputs),
      rippleAmpsRms: number(inputs, "I_A"),
      ratedRippleAmpsRms: number(inputs, "Ir_A"),
      ratedCoreRiseKelvin: number(inputs, "dT0_K"),
      halvingKelvin: A,
      endMultiple: number(inputs, "M"),
      law: word(inputs, "law", ["exp", "linear", "hyperbolic"]),
      isNormalised: flag(inputs, "norm"),
    });
    return {
      L_h: result.lifeHours,
      L_static_h: result.staticLifeHours,
      dT_start_K: result.startRiseKelvin,
      dT_end_K: result.endRiseKelvin,
      L_cap_h: result.cappedLifeHours,
    };
  },
  "d-scatter": (inputs) => {
    const distribution = word(inputs, "dist", ["weibull", "lognormal"]);
    const result = lifeScatter({
      lifeHours: number(inputs, "L_h"),
      failedRatio: number(inputs, "q_of_L"),
      distribution,
      shape: optionalNumber(inputs, distribution === "weibull" ? "beta" : "sigma"),
      ageHours: number(inputs, "age_h"),
      warrantyHours: number(inputs, "W_h"),
    });
    return {
      scale_h: result.scaleHours,
      B1_h: result.hoursAtOnePercent,
      B10_h: result.hoursAtTenPercent,
      B50_h: result.medianHours,
      P_warranty: result.warrantyFailureProbability,
    };
  },
  "d-board": (inputs) => {
    const parts = list(inputs, "caps").map((row) => {
      const part = record(row, "caps");
      if (typeof part.group !== "string") throw new OutOfRangeError("group", part.group, "a name");
      return {
        group: part.group,
        etaHours: number(part, "eta_h"),
        beta: number(part, "beta"),
        ageHours: number(part, "age_h"),
        hasFailed: flag(part, "failed"),
        newEtaHours: number(part, "eta_new_h"),
        newBeta: number(part, "beta_new"),
      };
    });
    const result = returnChances(parts, number(inputs, "W_h"), {
      hasFrailty: flag(inputs, "frailty"),
      workFailureRatio: optionalNumber(inputs, "q_work"),
    });
    return {
      P_failed_only: result.failed_only.returnProbability,
      n_failed_only: result.failed_only.replacedCount,
      P_same_group: result.same_group.returnProbability,
      n_same_group: result.same_group.replacedCount,
      P_all: result.all.returnProbability,
      n_all: result.all.replacedCount,
    };
  },
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
