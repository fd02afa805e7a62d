/**
 * An argument lies outside the range a calculation is defined for. Carries the facts, so that wording can live elsewhere.
 */
export class OutOfRangeError extends Error {
  override readonly name = "OutOfRangeError";
  constructor(
    readonly argument: string,
    readonly value: unknown,
    readonly rule: string,
  ) {
    super(`${argument} must be ${rule}, got ${String(value)}`);
  }
}

/** A root is asked for between two ends at which the function has the same sign: there may be none. */
export class NoBracketError extends Error {
  override readonly name = "NoBracketError";
  constructor(
    readonly low: number,
    readonly high: number,
    readonly valueAtLow: number,
    readonly valueAtHigh: number,
  ) {
    super(`no change of sign between ${low} (${valueAtLow}) and ${high} (${valueAtHigh})`);
  }
}
