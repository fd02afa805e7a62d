/** Log-odds of a probability in (0, 1); the ends give -Infinity and +Infinity. */
export function logit(probability: number): number {
  return Math.log(probability / (1 - probability));
}

/** Inverse of logit, written so that neither tail overflows. */
export function logistic(x: number): number {
  if (x >= 0) return 1 / (1 + Math.exp(-x));
  const e = Math.exp(x);
  return e / (1 + e);
}
