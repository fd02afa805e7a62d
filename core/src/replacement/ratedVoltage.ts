import type { PositionClass } from "../board/sections";
import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";

/** By the marking of the old part, by the measured rail with margin, or the stricter of both. */
export type VoltageSchool = "marking" | "rail" | "both";

/**
 * Least rated voltage of a replacement and the next standard value. Usual.
 *
 * @param originalRatedVolts null where the marking is unknown (an error in school `marking`)
 * @throws {OutOfRangeError} rail not above 0, unknown position
 */
export function replacementRatedVoltage(
  question: {
    readonly railVolts: number;
    readonly position: PositionClass;
    readonly originalRatedVolts: number | null;
    readonly school: VoltageSchool;
  },
  constants: JudgementConstants["E"] = judgementConstants.E,
): { readonly leastVolts: number; readonly standardVolts: number | null; readonly marginRatio: number | null } {
  const rail = requirePositive("railVolts", question.railVolts);
  const original = question.originalRatedVolts;
  if (original !== null) requirePositive("originalRatedVolts", original);
  const need = positionLimits(question.position, constants).voltsWarnRatio * rail;
  let leastVolts = need;
  if (question.school === "marking") {
    if (original === null) throw new OutOfRangeError("originalRatedVolts", original, "known for school marking");
    leastVolts = original;
  } else if (question.school === "both") leastVolts = Math.max(need, original ?? 0);
  const standardVolts = constants.v_std.find((volts) => volts >= leastVolts - 1e-9) ?? null;
  return { leastVolts, standardVolts, marginRatio: standardVolts === null ? null : standardVolts / rail };
}

export interface PositionLimits {
  readonly voltsWarnRatio: number;
  readonly voltsRejectRatio: number;
  readonly capacitanceMinRatio: number;
  readonly capacitanceMaxRatio: number;
  readonly capacitanceHardMinRatio: number;
  readonly capacitanceHardMaxRatio: number;
  readonly esrLowRatio: number;
  readonly esrWarnRatio: number;
  readonly esrRejectRatio: number;
  readonly rippleWarnRatio: number;
  readonly rippleRejectRatio: number;
  readonly polymer: "warn" | "reject";
}

/** The named limits of one position class. */
export function positionLimits(
  position: PositionClass,
  constants: JudgementConstants["E"] = judgementConstants.E,
): PositionLimits {
  const row = Object.hasOwn(constants.pos, position) ? constants.pos[position] : undefined;
  if (!row) throw new OutOfRangeError("position", position, "a known position class");
  return {
    voltsWarnRatio: row[0],
    voltsRejectRatio: row[1],
    capacitanceMinRatio: row[2],
    capacitanceMaxRatio: row[3],
    capacitanceHardMinRatio: constants.c_hard_lo[position] as number,
    capacitanceHardMaxRatio: constants.c_hard_hi[position] as number,
    esrLowRatio: row[4],
    esrWarnRatio: row[5],
    esrRejectRatio: row[6],
    rippleWarnRatio: row[7],
    rippleRejectRatio: row[8],
    polymer: row[9],
  };
}
