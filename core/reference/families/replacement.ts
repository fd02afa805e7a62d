import type { PositionClass } from "../../src/board/sections";
import { type ComparedPart, checkReplacement } from "../../src/replacement/checkReplacement";
import { replacementRatedVoltage } from "../../src/replacement/ratedVoltage";
import type { FamilyAdapter } from "../families";
import { type Inputs, number, optionalNumber, record, word } from "../inputs";

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
    return { verdict: result.verdict, codes: result.codes, C_ratio: result.capacitanceRatio };
  },
};
