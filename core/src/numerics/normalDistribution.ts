import { bracketedRoot } from "./bracketedRoot";
import { requireBetween } from "./requireRange";

/**
 * Complementary error function: series below 2.5, continued fraction above.
 *
 * Relative error about 1e-11; defined for every finite x.
 *
 * @see Abramowitz and Stegun, 7.1.6 (series) and 7.1.14 (continued fraction)
 */
export function complementaryErrorFunction(x: number): number {
  if (x < 0) return 2 - complementaryErrorFunction(-x);
  if (x < 2.5) {
    let term = x;
    let sum = x;
    for (let n = 1; term >= 1e-17 * sum && term > 0; n++) {
      term *= (2 * x * x) / (2 * n + 1);
      sum += term;
    }
    return 1 - (2 / Math.sqrt(Math.PI)) * Math.exp(-x * x) * sum;
  }
  let fraction = x;
  for (let k = 80; k >= 1; k--) fraction = x + k / 2 / fraction;
  return Math.exp(-x * x) / (Math.sqrt(Math.PI) * fraction);
}

/**
 * Standard normal distribution function.
 *
 * @example normalDistribution(0) // 0.5
 */
export function normalDistribution(z: number): number {
  return 0.5 * complementaryErrorFunction(-z / Math.SQRT2);
}

/** Beyond this the distribution function of a double is 0 or 1. */
const farthest = 40;

/**
 * The z at which the standard normal distribution reaches p: bisection where a double can tell it from its ends.
 *
 * @param p between 0 and 1
 * @throws {OutOfRangeError} at or beyond the ends
 */
export function normalQuantile(p: number): number {
  requireBetween("p", p, 0, 1);
  return bracketedRoot((z) => normalDistribution(z) - p, -farthest, farthest);
}
