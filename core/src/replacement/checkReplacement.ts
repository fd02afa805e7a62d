import type { PositionClass } from "../board/sections";
import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { requirePositive } from "../numerics/requireRange";
import { type PositionLimits, positionLimits } from "./ratedVoltage";

const { muchHigherVoltsRatio } = tradeConstants.replacement;

export interface ComparedPart {
  readonly capacitanceFarads: number;
  readonly ratedVolts: number;
  /** At 100 kHz; null where unknown. */
  readonly esrOhms: number | null;
  /** At the same frequency and temperature for both parts; null where unknown. */
  readonly rippleAmpsRms: number | null;
  readonly technology: "liquid" | "polymer";
}

/** One thing that speaks against a replacement, and whether it alone turns it down. */
export interface ReplacementFinding {
  readonly code: string;
  readonly level: "reject" | "warn";
}

export interface ReplacementCheck {
  readonly verdict: "ok" | "warn" | "reject";
  /** Sorted by code. */
  readonly findings: readonly ReplacementFinding[];
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
  const findings = [
    ...voltageFindings(question.railVolts, original, replacement, limits),
    ...capacitanceFindings(capacitanceRatio, limits),
    ...esrFindings(original, replacement, limits),
    ...rippleFindings(original, replacement, limits),
    ...technologyFindings(original, replacement, limits),
  ].sort((a, b) => (a.code < b.code ? -1 : 1));
  const isRejected = findings.some((one) => one.level === "reject");
  return { verdict: isRejected ? "reject" : findings.length > 0 ? "warn" : "ok", findings, capacitanceRatio };
}

const reject = (code: string): ReplacementFinding => ({ code, level: "reject" });
const warn = (code: string): ReplacementFinding => ({ code, level: "warn" });

function voltageFindings(rail: number | null, original: ComparedPart, part: ComparedPart, limits: PositionLimits) {
  const found: ReplacementFinding[] = [];
  if (rail !== null) {
    const ratio = part.ratedVolts / rail;
    if (ratio < limits.voltsRejectRatio - slack) found.push(reject("R_V_BELOW_RAIL_LIMIT"));
    else if (ratio < limits.voltsWarnRatio - slack) found.push(warn("W_V_MARGIN"));
    if (part.ratedVolts < original.ratedVolts) found.push(warn("W_V_BELOW_MARKING"));
  } else if (part.ratedVolts < original.ratedVolts) found.push(reject("R_V_BELOW_MARKING_RAIL_UNKNOWN"));
  if (part.ratedVolts > muchHigherVoltsRatio * original.ratedVolts) found.push(warn("W_V_MUCH_HIGHER"));
  return found;
}

function capacitanceFindings(ratio: number, limits: PositionLimits): readonly ReplacementFinding[] {
  if (ratio < limits.capacitanceHardMinRatio - slack) return [reject("R_C_TOO_SMALL")];
  if (ratio < limits.capacitanceMinRatio - slack) return [warn("W_C_SMALL")];
  if (ratio > limits.capacitanceHardMaxRatio + slack) return [reject("R_C_TOO_LARGE")];
  return ratio > limits.capacitanceMaxRatio + slack ? [warn("W_C_LARGE")] : [];
}

function esrFindings(
  original: ComparedPart,
  part: ComparedPart,
  limits: PositionLimits,
): readonly ReplacementFinding[] {
  if (original.esrOhms === null || part.esrOhms === null) return [warn("W_ESR_UNKNOWN")];
  const ratio = part.esrOhms / original.esrOhms;
  if (ratio < limits.esrLowRatio) return [warn("W_ESR_TOO_LOW")];
  if (ratio > limits.esrRejectRatio) return [reject("R_ESR_TOO_HIGH")];
  return ratio > limits.esrWarnRatio ? [warn("W_ESR_HIGH")] : [];
}

function rippleFindings(
  original: ComparedPart,
  part: ComparedPart,
  limits: PositionLimits,
): readonly ReplacementFinding[] {
  if (!(limits.rippleWarnRatio > 0)) return [];
  if (original.rippleAmpsRms === null || part.rippleAmpsRms === null) return [warn("W_RIPPLE_UNKNOWN")];
  const ratio = part.rippleAmpsRms / original.rippleAmpsRms;
  if (ratio < limits.rippleRejectRatio) return [reject("R_RIPPLE")];
  return ratio < limits.rippleWarnRatio ? [warn("W_RIPPLE")] : [];
}

function technologyFindings(
  original: ComparedPart,
  part: ComparedPart,
  limits: PositionLimits,
): readonly ReplacementFinding[] {
  if (part.technology !== "polymer" || original.technology === "polymer") return [];
  return [limits.polymer === "reject" ? reject("R_POLYMER") : warn("W_POLYMER")];
}
