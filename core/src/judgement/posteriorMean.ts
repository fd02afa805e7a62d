import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/**
 * A default probability blended with what the shop has counted (beta posterior mean).
 *
 *     p = (k + n0 p0) / (n + n0)
 *
 * @param count k events in n trials, 0 <= k <= n
 * @param defaultWeight n0: how many trials the default is worth
 * @throws {OutOfRangeError} default outside 0..1, k above n, weight not above 0
 */
export function posteriorMeanProbability(
  defaultProbability: number,
  count: { readonly events: number; readonly trials: number },
  defaultWeight?: number | null,
  constants: JudgementConstants["B"] = judgementConstants.B,
): number {
  if (!(defaultProbability >= 0 && defaultProbability <= 1)) {
    throw new OutOfRangeError("defaultProbability", defaultProbability, "between 0 and 1");
  }
  requireNonNegative("events", count.events);
  requireNonNegative("trials", count.trials);
  if (count.trials < count.events) throw new OutOfRangeError("trials", count.trials, "at least the number of events");
  const n0 = requirePositive("defaultWeight", defaultWeight ?? constants.n0_reestimate);
  return (count.events + n0 * defaultProbability) / (count.trials + n0);
}
