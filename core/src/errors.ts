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
