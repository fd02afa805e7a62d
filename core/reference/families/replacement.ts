import type { PositionClass } from "../../src/board/sections";
import { OutOfRangeError } from "../../src/errors";
import { type ComparedPart, checkReplacement } from "../../src/replacement/checkReplacement";
import { controlSupplyStart } from "../../src/replacement/controlSupplyStart";
import { esrZero } from "../../src/replacement/esrZero";
import { holdUpCapacitanceFarads } from "../../src/replacement/holdUpCapacitance";
import { parallelParts } from "../../src/replacement/parallelParts";
import { replacementRatedVoltage } from "../../src/replacement/ratedVoltage";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, list, number, optionalNumber, record, word } from "../inputs";

const positions: readonly PositionClass[] = [
  "mains_bulk",
  "pfc_bulk",
  "vcc",
  "standby_out",
  "main_pre",
  "main_post",
  "feedback",
  "gate_drive",
];

function part(inputs: Inputs, key: string): ComparedPart {
  const row = record(inputs[key], key);
  return {
    capacitanceFarads: number(row, "C_uF") / 1e6,
    ratedVolts: number(row, "Vr"),
    esrOhms: optionalNumber(row, "esr"),
    rippleAmpsRms: optionalNumber(row, "ripple"),
    technology: word(row, "tech", ["liquid", "polymer"]),
  };
}

export const replacementFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "e-vrating": (inputs) => {
    const result = replacementRatedVoltage({
      railVolts: number(inputs, "rail_V"),
      position: word(inputs, "position", positions),
      originalRatedVolts: optionalNumber(inputs, "orig_Vr"),
      school: word(inputs, "school", ["marking", "rail", "both"], "both"),
    });
    return { V_min: result.leastVolts, V_choice: result.standardVolts, ratio: result.marginRatio };
  },
  "e-check": (inputs) => {
    const result = checkReplacement({
      position: word(inputs, "position", positions),
      railVolts: optionalNumber(inputs, "rail_V"),
      original: part(inputs, "orig"),
      replacement: part(inputs, "new"),
    });
    return { verdict: result.verdict, codes: result.findings.map((one) => one.code), C_ratio: result.capacitanceRatio };
  },
  "e-parallel": (inputs) => {
    const A = inputs.A;
    if (A !== 5 && A !== 10 && A !== "split") throw new OutOfRangeError("A", A, "5, 10 or split");
    const result = parallelParts(
      list(inputs, "parts").map((row) => {
        const part = record(row, "parts");
        return {
          capacitanceFarads: number(part, "C"),
          esrOhms: number(part, "esr"),
          eslHenrys: optionalNumber(part, "esl") ?? 0,
          ratedRippleAmpsRms: number(part, "Ir"),
          ratedLifeHours: number(part, "L0_h"),
        };
      }),
      {
        frequencyHertz: number(inputs, "f_Hz"),
        rippleAmpsRms: number(inputs, "I_A"),
        ratedTemperatureCelsius: number(inputs, "T0_C"),
        ambientCelsius: number(inputs, "Ta_C"),
        ratedCoreRiseKelvin: number(inputs, "dT0_K"),
        school: A,
      },
    );
    return {
      C_total: result.capacitanceFarads,
      re_Z: result.resistanceOhms,
      mag_Z: result.magnitudeOhms,
      shares: result.parts.map((part) => part.shareRatio),
      I_k: result.parts.map((part) => part.ampsRms),
      L_h: result.parts.map((part) => part.lifeHours),
      worst: result.worstIndex,
      worst_L_h: result.parts[result.worstIndex]?.lifeHours,
      max_load: result.mostLoadRatio,
    };
  },
  "e-vcc": (inputs) => {
    const result = controlSupplyStart({
      capacitanceFarads: number(inputs, "C_F"),
      bulkVolts: number(inputs, "V_bulk"),
      startOhms: number(inputs, "R_start"),
      quiescentAmps: number(inputs, "I_q"),
      startVolts: number(inputs, "V_on"),
      stopVolts: number(inputs, "V_off"),
      operatingAmps: number(inputs, "I_op"),
      takeoverSeconds: number(inputs, "t_takeover"),
    });
    return { t_start: result.startSeconds, C_min: result.leastFarads, starts: result.doesStart };
  },
  "e-holdup": (inputs) => ({
    C_min: holdUpCapacitanceFarads({
      outputWatts: number(inputs, "P_W"),
      efficiencyRatio: number(inputs, "eff"),
      seconds: number(inputs, "t_s"),
      startVolts: number(inputs, "V1"),
      endVolts: number(inputs, "V2"),
    }),
  }),
  "e-esr-zero": (inputs) => {
    const result = esrZero(
      { esrOhms: number(inputs, "esr_old"), capacitanceFarads: number(inputs, "C_old") },
      { esrOhms: number(inputs, "esr_new"), capacitanceFarads: number(inputs, "C_new") },
      optionalNumber(inputs, "L_H"),
    );
    return {
      fz_old: result.beforeHertz,
      fz_new: result.afterHertz,
      ratio: result.ratio,
      Q_old: result.beforeQ,
      Q_new: result.afterQ,
    };
  },
};
