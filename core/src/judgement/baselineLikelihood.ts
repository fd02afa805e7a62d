import type { BaselineValue } from "../board/baseline";
import { interpolate, type TableRow } from "../numerics/interpolate";
import { requirePositive } from "../numerics/requireRange";

/** Ratio to the baseline, log-likelihood ratio of failed against sound. Rough. */
const byRatio: readonly TableRow[] = [
  [0.5, -0.5],
  [0.8, -1.2],
  [1.2, -1.2],
  [1.6, 0],
  [2.5, 1.5],
  [4, 2.5],
];
/** A history of sound parts weighs half of what a unit that is known to be good does. */
const historyShare = 0.5;

/**
 * What a reading says against the same reading on a good board of the same type: log-likelihood ratio of failed against
 * sound, read from a table over the ratio. The same place in circuit on another board has the same neighbours, which no
 * model of a single part knows. Rough.
 *
 * @throws {OutOfRangeError} values not above 0
 */
export function baselineLikelihood(value: number, baseline: BaselineValue): number {
  const ratio = requirePositive("value", value) / requirePositive("typical", baseline.typical);
  const weight = interpolate(ratio, byRatio) * (baseline.isKnownGood ? 1 : historyShare);
  // Brothers may have dried alike: to read as they do clears nothing.
  return baseline.isOfBrothers ? Math.max(weight, 0) : weight;
}
