import { OutOfRangeError } from "../errors";
import { bracketedRoot } from "./bracketedRoot";
import { requirePositive } from "./requireRange";

/** Lanczos coefficients for g = 7, nine terms: relative error below 1e-14 for positive arguments. */
const lanczos = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
] as const;

/**
 * ln of the gamma function of a positive number (Lanczos).
 *
 * @throws {OutOfRangeError} for what is not positive
 */
export function logGamma(value: number): number {
  requirePositive("value", value);
  if (value < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * value)) - logGamma(1 - value);
  const x = value - 1;
  const sum = lanczos.slice(1).reduce<number>((total, one, n) => total + one / (x + n + 1), lanczos[0]);
  const t = x + lanczos.length - 1.5;
  return 0.5 * Math.log(2 * Math.PI) + (x + 0.5) * Math.log(t) - t + Math.log(sum);
}

const mostTerms = 400;
const tiny = 1e-300;
const nearEnough = 1e-15;

/** The continued fraction of the incomplete beta function (Lentz); converges fast below the mean. */
function betaFraction(x: number, a: number, b: number): number {
  let c = 1;
  let d = 1 / bounded(1 - ((a + b) * x) / (a + 1));
  let result = d;
  for (let m = 1; m <= mostTerms; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / bounded(1 + even * d);
    c = bounded(1 + even / c);
    result *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / bounded(1 + odd * d);
    c = bounded(1 + odd / c);
    const step = d * c;
    result *= step;
    if (Math.abs(step - 1) < nearEnough) break;
  }
  return result;
}
const bounded = (value: number) => (Math.abs(value) < tiny ? tiny : value);

/**
 * Regularised incomplete beta function I(x; a, b): the chance that a share with Beta(a, b) lies at or below x.
 *
 * @param a above 0; @param b above 0; @param x from 0 to 1
 * @throws {OutOfRangeError} outside these
 */
export function betaCumulative(x: number, a: number, b: number): number {
  requirePositive("a", a);
  requirePositive("b", b);
  if (!(x >= 0 && x <= 1)) throw new OutOfRangeError("x", x, "from 0 to 1");
  if (x === 0 || x === 1) return x;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
  // From the side on which the fraction converges.
  return x < (a + 1) / (a + b + 2) ? (front * betaFraction(x, a, b)) / a : 1 - (front * betaFraction(1 - x, b, a)) / b;
}

/** Density of Beta(a, b) times x (1 - x): over logit x it has no poles. */
export function betaOverLogit(x: number, a: number, b: number): number {
  return Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
}

/**
 * The share below which Beta(a, b) lies with a chance.
 *
 * @param ratio from 0 to 1
 * @throws {OutOfRangeError} outside its range
 */
export function betaQuantile(ratio: number, a: number, b: number): number {
  if (!(ratio >= 0 && ratio <= 1)) throw new OutOfRangeError("ratio", ratio, "from 0 to 1");
  if (ratio === 0 || ratio === 1) return ratio;
  return bracketedRoot((x) => betaCumulative(x, a, b) - ratio, 0, 1, 200);
}
