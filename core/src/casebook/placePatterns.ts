import { tradeConstants } from "../constants/tradeConstants";
import { logGamma } from "../numerics/betaDistribution";
import { requireNonNegative } from "../numerics/requireRange";
import { type BetaInterval, betaInterval } from "./betaInterval";

const { standsOutBelow } = tradeConstants.casebook;

/** How often a place had failed in one model, and in all others where it can be told. */
export interface PlaceCount {
  readonly place: string;
  readonly failedCount: number;
  readonly seenCount: number;
  /** The same kind of place (its section) in all other models. */
  readonly otherFailedCount: number;
  readonly otherSeenCount: number;
}

export interface PlacePattern extends PlaceCount {
  /** null where too few were seen to count on. */
  readonly share: BetaInterval | null;
  /** It fails here more often than its like elsewhere, by more than chance and the number of places that were looked at explain. */
  readonly standsOut: boolean;
}

/**
 * Which places of a model fail, and which of them more often than their like in other models. A share is given from so many
 * units on; below it only the count. What stands out is told by Fisher's exact test, one-sided, with the false discoveries
 * among all places held to one in twenty (Benjamini and Hochberg). Units come because they failed: shares are of units that
 * came in, not of those sold.
 *
 * Solid.
 */
export function placePatterns(counts: readonly PlaceCount[], fewestCount: number): readonly PlacePattern[] {
  const chances = counts.map((one) =>
    one.seenCount >= fewestCount && one.otherSeenCount >= fewestCount
      ? fisherHigher(one.failedCount, one.seenCount, one.otherFailedCount, one.otherSeenCount)
      : 1,
  );
  const standing = discoveries(chances, standsOutBelow);
  return counts.map((one, n) => ({
    ...one,
    share: one.seenCount >= fewestCount ? betaInterval(one.failedCount, one.seenCount) : null,
    standsOut: standing[n] === true,
  }));
}

/**
 * Chance that as many or more of the first would have failed if both failed alike (Fisher's exact test, one-sided).
 *
 *     P = sum over k' >= k of C(n1, k') C(n2, K - k') / C(n1 + n2, K),   K = k + the other's
 *
 * @param counts whole, none above its total
 */
export function fisherHigher(
  failedCount: number,
  seenCount: number,
  otherFailedCount: number,
  otherSeenCount: number,
): number {
  for (const [name, value] of Object.entries({ failedCount, otherFailedCount })) requireNonNegative(name, value);
  requireNonNegative("seenCount - failedCount", seenCount - failedCount);
  requireNonNegative("otherSeenCount - otherFailedCount", otherSeenCount - otherFailedCount);
  const failed = failedCount + otherFailedCount;
  const whole = logChoose(seenCount + otherSeenCount, failed);
  let sum = 0;
  for (let k = failedCount; k <= Math.min(seenCount, failed); k++) {
    if (failed - k > otherSeenCount) continue;
    sum += Math.exp(logChoose(seenCount, k) + logChoose(otherSeenCount, failed - k) - whole);
  }
  return Math.min(sum, 1);
}

const logChoose = (n: number, k: number) => logGamma(n + 1) - logGamma(k + 1) - logGamma(n - k + 1);

/**
 * Which of many chances are small beyond what so many looks explain: all up to the largest that lies at or below its rank
 * times the rate over their number.
 *
 * @see Y. Benjamini, Y. Hochberg, "Controlling the false discovery rate", J. R. Statist. Soc. B 57 (1995)
 */
export function discoveries(chances: readonly number[], rate: number): readonly boolean[] {
  const sorted = [...chances].sort((a, b) => a - b);
  let limit = -1;
  sorted.forEach((chance, n) => {
    if (chance <= (rate * (n + 1)) / chances.length) limit = chance;
  });
  return chances.map((chance) => chance <= limit);
}
