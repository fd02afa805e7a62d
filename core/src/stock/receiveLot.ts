import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { requireBetween, requirePositive } from "../numerics/requireRange";

export interface LotDecision {
  /** Chance that more than the allowed share of the lot is bad. */
  readonly tooManyProbability: number;
  readonly meanBadRatio: number;
  /** As many bad ones as the allowed share still lets pass. */
  readonly allowedCount: number;
  readonly decision: "accept" | "measure_more" | "reject";
  /** How many more must be measured, all of them good, to accept; null where that cannot be any more. */
  readonly moreCount: number | null;
}

export const mostLotCount = 5000;
const slack = 1e-9;

/**
 * What a sample says of a lot: bad parts are beta-binomial before anything was measured, and the rest of the lot given the sample.
 *
 *     M ~ beta-binomial(n - k; a0 + d, b0 + k - d),  P = P(d + M > floor(x n))
 *
 * Solid; the prior of bad lots (one in twenty) is rough.
 *
 * @throws {OutOfRangeError} counts that are not whole or above the lot, a share outside 0..1, thresholds that do not rise
 */
export function receiveLot(
  lot: {
    readonly count: number;
    readonly measuredCount: number;
    readonly badCount: number;
    readonly allowedBadRatio: number;
    readonly priorBad?: number | null;
    readonly priorGood?: number | null;
    readonly acceptBelow?: number | null;
    readonly rejectFrom?: number | null;
  },
  constants = planningConstants.L,
): LotDecision {
  const { count: n, measuredCount: k, badCount: d, allowedBadRatio: x } = lot;
  const whole = (name: string, value: number, least: number, most: number) => {
    if (!Number.isInteger(value) || value < least || value > most) {
      throw new OutOfRangeError(name, value, `whole, from ${least} to ${most}`);
    }
  };
  whole("count", n, 1, mostLotCount);
  whole("measuredCount", k, 0, n);
  whole("badCount", d, 0, k);
  if (!(x >= 0 && x < 1)) throw new OutOfRangeError("allowedBadRatio", x, "from 0 to below 1");
  const a0 = requirePositive("priorBad", lot.priorBad ?? constants.bad_a0);
  const b0 = requirePositive("priorGood", lot.priorGood ?? constants.bad_b0);
  const accept = requireBetween("acceptBelow", lot.acceptBelow ?? constants.p_accept, 0, 1);
  const reject = requireBetween("rejectFrom", lot.rejectFrom ?? constants.p_reject, 0, 1);
  if (!(accept < reject)) throw new OutOfRangeError("acceptBelow", accept, "below the other threshold");
  const allowedCount = Math.floor(x * n + slack);
  const tooMany = (measured: number) =>
    d > allowedCount ? 1 : tailAbove(n - measured, a0 + d, b0 + measured - d, allowedCount - d);
  const tooManyProbability = tooMany(k);
  const decision = tooManyProbability <= accept ? "accept" : tooManyProbability >= reject ? "reject" : "measure_more";
  return {
    ...{ tooManyProbability, allowedCount, decision },
    meanBadRatio: (d + ((n - k) * (a0 + d)) / (a0 + b0 + k)) / n,
    moreCount: d > allowedCount ? null : leastMore(n - k, (more) => tooMany(k + more) <= accept),
  };
}

/** The least count for which it holds; holding once, it holds for all above. */
function leastMore(most: number, holds: (more: number) => boolean): number {
  let [low, high] = [0, most];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** P(M > limit) for a beta-binomial, by its recurrence from zero on. */
function tailAbove(count: number, a: number, b: number, limit: number): number {
  if (limit >= count) return 0;
  // P(0) = B(a, b + count)/B(a, b), as a product: no gamma function, no overflow.
  let term = 1;
  for (let i = 0; i < count; i++) term *= (b + i) / (a + b + i);
  let covered = term;
  for (let m = 0; m < limit; m++) {
    term *= ((count - m) / (m + 1)) * ((a + m) / (b + count - m - 1));
    covered += term;
  }
  return Math.max(0, 1 - covered);
}
