import { OutOfRangeError } from "../errors";
import { median } from "../numerics/median";

export interface CombinedValue {
  readonly value: number;
  /** Spread of the repeats as a standard deviation relative to the value; 0 for a single reading. */
  readonly spreadRatio: number;
  readonly count: number;
}

/** Makes a median absolute deviation of normal data their standard deviation: 1 / 0.6745. */
const deviationOfMad = 1.4826;

/**
 * One value of several readings of the same thing: the median, with the scaled median absolute deviation as spread
 * (1.4826 MAD equals the standard deviation of normal data), so that a single slip does not carry the result.
 *
 * @param values at least one, none negative
 * @throws {OutOfRangeError} for an empty list
 */
export function combineRepeats(values: readonly number[]): CombinedValue {
  if (values.length === 0) throw new OutOfRangeError("values", 0, "at least one reading");
  const value = median(values);
  const deviation = deviationOfMad * median(values.map((one) => Math.abs(one - value)));
  return { value, spreadRatio: value > 0 ? deviation / value : 0, count: values.length };
}
