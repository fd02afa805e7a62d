import { tradeConstants } from "../constants/tradeConstants";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/**
 * Where a drained store ends after creeping back, from two readings without a drain: it gives back half of what it will in
 * about a minute and the rest over tens of minutes.
 *
 *     V_end = V1 + (V2 - V1) / f    f = t / (t + t_half)
 *
 * A store that fell meanwhile stays at its second reading. Rough: the half-time is met on aluminium electrolytics from one
 * to two minutes.
 *
 * @param firstVolts magnitude of the first reading
 * @param secondVolts magnitude of the second, `seconds` later
 * @throws {OutOfRangeError} a voltage negative, seconds not above 0
 * @example creepBackVolts(9, 9.5, 60) // 10
 */
export function creepBackVolts(firstVolts: number, secondVolts: number, seconds: number): number {
  const first = requireNonNegative("firstVolts", firstVolts);
  const second = requireNonNegative("secondVolts", secondVolts);
  const elapsed = requirePositive("seconds", seconds);
  if (second <= first) return second;
  return first + ((second - first) * (elapsed + tradeConstants.safety.creepHalfSeconds)) / elapsed;
}
