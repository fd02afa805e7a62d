import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { betaCumulative, betaOverLogit, betaQuantile } from "../numerics/betaDistribution";
import { requirePositive } from "../numerics/requireRange";

const {
  conf: confidenceRatio,
  n0: priorCount,
  p_default: priorRatio,
  cut_higher: higherFromRatio,
} = planningConstants.I;

/** What so many of so many say of a share. */
export interface BetaInterval {
  readonly a: number;
  readonly b: number;
  readonly meanRatio: number;
  readonly lowRatio: number;
  readonly highRatio: number;
}

export interface BetaPrior {
  /** What is expected before anything was counted, and as how many units that counts. */
  readonly ratio: number;
  readonly count: number;
}

/** Jeffreys' prior: half a unit of each. */
export const jeffreysPrior: BetaPrior = { ratio: priorRatio, count: priorCount };

/**
 * A share by counting, with the interval in which it lies.
 *
 *     a = n0 p0 + k,  b = n0 (1 - p0) + n - k,  quantiles (1 -+ confidence)/2 of Beta(a, b)
 *
 * Solid.
 *
 * @throws {OutOfRangeError} unless k and n are whole with 0 <= k <= n, and the prior leaves room for either
 */
export function betaInterval(
  count: number,
  total: number,
  {
    prior = jeffreysPrior,
    confidence = confidenceRatio,
  }: { readonly prior?: BetaPrior; readonly confidence?: number } = {},
): BetaInterval {
  for (const [name, value] of Object.entries({ count, total })) {
    if (!Number.isInteger(value)) throw new OutOfRangeError(name, value, "whole");
  }
  if (!(prior.ratio > 0 && prior.ratio < 1)) throw new OutOfRangeError("prior.ratio", prior.ratio, "between 0 and 1");
  requirePositive("prior.count", prior.count);
  if (!(count >= 0 && count <= total)) throw new OutOfRangeError("count", count, `from 0 to ${total}`);
  if (!(confidence > 0 && confidence < 1)) throw new OutOfRangeError("confidence", confidence, "between 0 and 1");
  const a = prior.count * prior.ratio + count;
  const b = prior.count * (1 - prior.ratio) + total - count;
  return {
    ...{ a, b, meanRatio: a / (a + b) },
    lowRatio: betaQuantile((1 - confidence) / 2, a, b),
    highRatio: betaQuantile((1 + confidence) / 2, a, b),
  };
}

export type SeriesOrder = "higher" | "lower" | "undecided";

export interface SeriesComparison {
  /** That the first share is the higher one. */
  readonly higherProbability: number;
  readonly firstMeanRatio: number;
  readonly secondMeanRatio: number;
  readonly verdict: SeriesOrder;
}

const steps = 4000;
/** Beyond this logit lies nothing that counts. */
const widestLogit = 40;

/**
 * Which of two shares is the higher one, by their independent posteriors.
 *
 *     P = integral of f1(x) I(x; a2, b2) dx   (trapezoid over logit x)
 *
 * Solid.
 *
 * @throws {OutOfRangeError} unless 0 <= k <= n for both
 */
export function compareShares(
  first: { readonly count: number; readonly total: number },
  second: { readonly count: number; readonly total: number },
  {
    prior = jeffreysPrior,
    higherFrom = higherFromRatio,
  }: { readonly prior?: BetaPrior; readonly higherFrom?: number } = {},
): SeriesComparison {
  const one = betaInterval(first.count, first.total, { prior });
  const two = betaInterval(second.count, second.total, { prior });
  const width = (2 * widestLogit) / steps;
  let sum = 0;
  for (let n = 0; n <= steps; n++) {
    const x = 1 / (1 + Math.exp(-(-widestLogit + n * width)));
    if (x <= 0 || x >= 1) continue;
    const weight = n === 0 || n === steps ? 0.5 : 1;
    sum += weight * betaOverLogit(x, one.a, one.b) * betaCumulative(x, two.a, two.b);
  }
  const higherProbability = Math.min(sum * width, 1);
  const verdict =
    higherProbability >= higherFrom ? "higher" : higherProbability <= 1 - higherFrom ? "lower" : "undecided";
  return { higherProbability, firstMeanRatio: one.meanRatio, secondMeanRatio: two.meanRatio, verdict };
}
