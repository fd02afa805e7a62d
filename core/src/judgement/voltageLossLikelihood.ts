import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { interpolate } from "../numerics/interpolate";
import { requireNonNegative } from "../numerics/requireRange";

/**
 * Leakage evidence (log-likelihood ratio) from a voltage-loss reading. Rough.
 *
 * @param voltageLossRatio share of the test voltage lost (5 % is 0.05), at least 0
 * @throws {OutOfRangeError} if negative or not finite
 */
export function voltageLossLikelihood(
  voltageLossRatio: number,
  constants: JudgementConstants["B"] = judgementConstants.B,
): number {
  return interpolate(requireNonNegative("voltageLossRatio", voltageLossRatio) * 100, constants.vloss);
}
