import { OutOfRangeError } from "../errors";

/**
 * The value below which a share of the values lies, linear between the two nearest: of n sorted values the one at
 * (n - 1) share, counted from 0. Fields differ in this convention; it is the one whose 0.5 is the median and whose ends are
 * least and most.
 *
 * @param shareRatio 0 to 1
 * @throws {OutOfRangeError} for an empty list, a share outside 0 to 1
 * @see R. J. Hyndman, Y. Fan, "Sample quantiles in statistical packages", The American Statistician 50 (1996), definition 7
 * @example percentile([1, 2, 3, 4, 5], 0.25) // 2
 */
export function percentile(values: readonly number[], shareRatio: number): number {
  if (values.length === 0) throw new OutOfRangeError("values", 0, "at least one value");
  if (!(shareRatio >= 0 && shareRatio <= 1)) throw new OutOfRangeError("shareRatio", shareRatio, "between 0 and 1");
  const sorted = Float64Array.from(values).sort();
  const place = (sorted.length - 1) * shareRatio;
  const below = Math.floor(place);
  const lower = sorted[below] as number;
  const upper = sorted[Math.ceil(place)] as number;
  return lower === upper ? lower : lower + (upper - lower) * (place - below);
}
