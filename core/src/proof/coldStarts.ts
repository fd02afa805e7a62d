import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { bracketedRoot } from "../numerics/bracketedRoot";
import { requireBetween } from "../numerics/requireRange";

export interface ColdStarts {
  readonly failedRatio: number | null;
  /** With so much confidence the share of failing starts lies below. */
  readonly upperRatio: number;
  readonly isEnough: boolean;
  /** So many starts in all, with no further failure; null: more than anybody makes. */
  readonly neededCount: number | null;
  readonly moreCount: number | null;
}

/**
 * What a number of starts shows of an intermittent fault.
 *
 *     upper: p at which BinCDF(k; n, p) = 1 - conf;  needed: least N >= n with BinCDF(k; N, p_max) <= 1 - conf
 *
 * Solid; assumes starts that are equal and independent.
 *
 * @param startCount n; @param failedCount k of them failed
 * @throws {OutOfRangeError} more failures than starts, shares not between 0 and 1
 * @example coldStarts(10, 0).upperRatio // 0.259
 */
export function coldStarts(
  startCount: number,
  failedCount: number,
  options: { readonly confidenceRatio?: number; readonly mostFailingRatio?: number } = {},
): ColdStarts {
  const constants = planningConstants.J;
  const { confidenceRatio = constants.conf, mostFailingRatio = constants.p_max } = options;
  requireBetween("confidenceRatio", confidenceRatio, 0, 1);
  requireBetween("mostFailingRatio", mostFailingRatio, 0, 1);
  for (const [name, value] of Object.entries({ startCount, failedCount })) {
    if (!Number.isInteger(value) || value < 0) throw new OutOfRangeError(name, value, "a whole number of at least 0");
  }
  if (failedCount > startCount) throw new OutOfRangeError("failedCount", failedCount, `at most ${startCount}`);
  const rest = 1 - confidenceRatio;
  const allowed = rest * (1 + 1e-9);
  const isShown = (count: number) => binomialCumulative(failedCount, count, mostFailingRatio) <= allowed;
  const upperRatio =
    failedCount === startCount
      ? 1
      : bracketedRoot((ratio) => binomialCumulative(failedCount, startCount, ratio) - rest, 1e-12, 1 - 1e-12);
  const neededCount = leastCount(Math.max(startCount, failedCount + 1), constants.n_cap, isShown);
  return {
    failedRatio: startCount === 0 ? null : failedCount / startCount,
    upperRatio,
    isEnough: failedCount < startCount && isShown(startCount),
    neededCount,
    moreCount: neededCount === null ? null : neededCount - startCount,
  };
}

/**
 * How many good starts in a row count as gone, from how often it failed before: the least n with (1 - k/m)^n <= 0.05, never fewer
 * than three; ten where nobody counted, or it never failed while somebody did.
 *
 * @example startsToShow(3, 10) // 9
 */
export function startsToShow(failedBefore: number | null, startsBefore: number | null): number {
  const { fewestStarts, unknownStarts, restRatio } = startRule;
  if (failedBefore === null || startsBefore === null || failedBefore <= 0 || startsBefore <= 0) return unknownStarts;
  const ratio = Math.min(failedBefore / startsBefore, 1);
  if (ratio === 1) return fewestStarts;
  return Math.max(fewestStarts, Math.ceil(Math.log(restRatio) / Math.log(1 - ratio) - 1e-9));
}
const startRule = { fewestStarts: 3, unknownStarts: 10, restRatio: 0.05 } as const;

/** The least count from `from` on for which a falling criterion holds; null above `most`. */
function leastCount(from: number, most: number, holds: (count: number) => boolean): number | null {
  if (holds(from)) return from;
  if (!holds(most)) return null;
  let [low, high] = [from, most];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (holds(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/** At most k of n, each with chance p; in logarithms, so that none of it vanishes. */
function binomialCumulative(k: number, n: number, p: number): number {
  if (k >= n) return 1;
  let logTerm = n * Math.log1p(-p);
  let sum = Math.exp(logTerm);
  const logOdds = Math.log(p) - Math.log1p(-p);
  for (let i = 0; i < k; i++) {
    logTerm += Math.log((n - i) / (i + 1)) + logOdds;
    sum += Math.exp(logTerm);
  }
  return Math.min(sum, 1);
}
