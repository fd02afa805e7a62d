import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/**
 * Voltage that creeps back after draining, by dielectric absorption: 2 to 10 % of what was taken off, some parts more.
 * Rough.
 *
 * @throws {OutOfRangeError} start not above 0, remaining voltage negative, fractions not low <= high < 1
 */
export function absorptionRecovery(
  drained: {
    readonly startVolts: number;
    readonly remainingVolts: number;
    readonly lowRatio?: number | null;
    readonly highRatio?: number | null;
  },
  constants: JudgementConstants["F"] = judgementConstants.F,
): {
  readonly lowVolts: number;
  readonly highVolts: number;
  readonly mustDrainAgain: boolean;
  readonly mayExceedTouchLimit: boolean;
} {
  const V0 = requirePositive("startVolts", drained.startVolts);
  const after = requireNonNegative("remainingVolts", drained.remainingVolts);
  const low = requirePositive("lowRatio", drained.lowRatio ?? constants.da_low);
  const high = requirePositive("highRatio", drained.highRatio ?? constants.da_high);
  if (!(low <= high && high < 1)) throw new OutOfRangeError("highRatio", high, "at least lowRatio and below 1");
  const swing = Math.max(V0 - after, 0);
  const highVolts = after + high * swing;
  return {
    lowVolts: after + low * swing,
    highVolts,
    mustDrainAgain: highVolts > constants.V_target,
    mayExceedTouchLimit: highVolts > constants.V_elv,
  };
}
