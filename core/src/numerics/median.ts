import { percentile } from "./percentile";

/**
 * The middle of the values; of an even number of them the mean of the two in the middle. The order given does not matter.
 *
 * @throws {OutOfRangeError} for an empty list
 * @example median([3, 1, 2, 10]) // 2.5
 */
export function median(values: readonly number[]): number {
  return percentile(values, 0.5);
}
