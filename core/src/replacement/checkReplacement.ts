import type { PositionClass } from "../board/sections";
import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { requirePositive } from "../numerics/requireRange";
import { type PositionLimits, positionLimits } from "./ratedVoltage";

export interface ComparedPart {
  readonly capacitanceFarads: number;
  readonly ratedVolts: number;
  /** At 100 kHz; null where unknown. */
  readonly esrOhms: number | null;
  /** At the same frequency and temperature for both parts; null where unknown. */
  readonly rippleAmpsRms: number | null;
  readonly technology: "liquid" | "polymer";
}

export interface ReplacementCheck {
  readonly verdict: "ok" | "warn" | "reject";
  /** Sorted; R_ rejects, W_ warns. */
  readonly codes: readonly string[];
  readonly capacitanceRatio: number;
}

const slack = 1e-9;

/**
 * Compares a replacement with the original at a position: voltage, capacitance, ESR, ripple rating, technology.
 * Voltage and C usual; ESR limits of regulation loops rough.
 *
 * @param railVolts highest voltage on the rail, null where it was not measured
 * @throws {OutOfRangeError} values not above 0, unknown position
 */
export function checkReplacement(
  question: {
    readonly position: PositionClass;
    readonly railVolts: number | null;
    readonly original: ComparedPart;
    readonly replacement: ComparedPart;
  },
  constants: JudgementConstants["E"] = judgementConstants.E,
): ReplacementCheck {
  const limits = positionLimits(question.position, constants);
  const { original, replacement } = question;
  for (const part of [original, replacement]) {
    requirePositive("capacitanceFarads", part.capacitanceFarads);
    requirePositive("ratedVolts", part.ratedVolts);
    if (part.esrOhms !== null) requirePositive("esrOhms", part.esrOhms);
    if (part.rippleAmpsRms !== null) requirePositive("rippleAmpsRms", part.rippleAmpsRms);
  }
  if (question.railVolts !== null) requirePositive("railVolts", question.railVolts);
  const capacitanceRatio = replacement.capacitanceFarads / original.capacitanceFarads;
  const codes = [
    ...voltageCodes(question.railVolts, original, replacement, limits),
    ...capacitanceCodes(capacitanceRatio, limits),
    ...esrCodes(original, replacement, limits),
    ...rippleCodes(original, replacement, limits),
  ];
  if (replacement.technology === "polymer" && original.technology !== "polymer") {
    codes.push(limits.polymer === "reject" ? "R_POLYMER" : "W_POLYMER");
  }
  codes.sort();
  const verdict = codes.some((code) => code.startsWith("R")) ? "reject" : codes.length > 0 ? "warn" : "ok";
  return { verdict, codes, capacitanceRatio };
}

function voltageCodes(rail: number | null, original: ComparedPart, part: ComparedPart, limits: PositionLimits) {
  const codes: string[] = [];
  if (rail !== null) {
    const ratio = part.ratedVolts / rail;
    if (ratio < limits.voltsRejectRatio - slack) codes.push("R_V_BELOW_RAIL_LIMIT");
    else if (ratio < limits.voltsWarnRatio - slack) codes.push("W_V_MARGIN");
    if (part.ratedVolts < original.ratedVolts) codes.push("W_V_BELOW_MARKING");
  } else if (part.ratedVolts < original.ratedVolts) codes.push("R_V_BELOW_MARKING_RAIL_UNKNOWN");
  if (part.ratedVolts > 3 * original.ratedVolts) codes.push("W_V_MUCH_HIGHER");
  return codes;
}

function capacitanceCodes(ratio: number, limits: PositionLimits): string[] {
  if (ratio < limits.capacitanceHardMinRatio - slack) return ["R_C_TOO_SMALL"];
  if (ratio < limits.capacitanceMinRatio - slack) return ["W_C_SMALL"];
  if (ratio > limits.capacitanceHardMaxRatio + slack) return ["R_C_TOO_LARGE"];
  return ratio > limits.capacitanceMaxRatio + slack ? ["W_C_LARGE"] : [];
}

function esrCodes(original: ComparedPart, part: ComparedPart, limits: PositionLimits): string[] {
  if (original.esrOhms === null || part.esrOhms === null) return ["W_ESR_UNKNOWN"];
  const ratio = part.esrOhms / original.esrOhms;
  if (ratio < limits.esrLowRatio) return ["W_ESR_TOO_LOW"];
  if (ratio > limits.esrRejectRatio) return ["R_ESR_TOO_HIGH"];
  return ratio > limits.esrWarnRatio ? ["W_ESR_HIGH"] : [];
}

function rippleCodes(original: ComparedPart, part: ComparedPart, limits: PositionLimits): string[] {
  if (!(limits.rippleWarnRatio > 0)) return [];
  if (original.rippleAmpsRms === null || part.rippleAmpsRms === null) return ["W_RIPPLE_UNKNOWN"];
  const ratio = part.rippleAmpsRms / original.rippleAmpsRms;
  if (ratio < limits.rippleRejectRatio) return ["R_RIPPLE"];
  return ratio < limits.rippleWarnRatio ? ["W_RIPPLE"] : [];
}
