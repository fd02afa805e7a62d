import { NoBracketError } from "../errors";

/**
 * A root of a continuous function between two ends of different sign, by bisection: it needs no derivative, cannot leave
 * the bracket, and gains one bit a step.
 *
 * @param low the lower end; @param high the upper one, above it
 * @param mostSteps halvings; without it, until the bracket holds no number in between
 * @returns the middle of the last bracket; an end at which the function is 0
 * @throws {NoBracketError} where both ends have the same sign, or an end gives no number
 * @example bracketedRoot((x) => x * x - 2, 0, 2) // 1.41421356...
 */
export function bracketedRoot(of: (x: number) => number, low: number, high: number, mostSteps = mostHalvings): number {
  const [atLow, atHigh] = [of(low), of(high)];
  if (atLow === 0) return low;
  if (atHigh === 0) return high;
  if (!(atLow > 0 !== atHigh > 0) || Number.isNaN(atLow) || Number.isNaN(atHigh)) {
    throw new NoBracketError(low, high, atLow, atHigh);
  }
  let [from, to] = [low, high];
  for (let step = 0; step < mostSteps; step++) {
    const middle = (from + to) / 2;
    if (middle === from || middle === to) break;
    if (of(middle) > 0 === atLow > 0) from = middle;
    else to = middle;
  }
  return (from + to) / 2;
}

/** A bracket of doubles is used up before this, wherever its root lies. */
const mostHalvings = 1100;
