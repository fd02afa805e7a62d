import { OutOfRangeError } from "../errors";

/** Guards at the door of a calculation. `!(x > 0)` also catches NaN. */
export function requirePositive(argument: string, value: number): number {
  if (!(value > 0) || !Number.isFinite(value)) throw new OutOfRangeError(argument, value, "a finite number above 0");
  return value;
}

export function requireNonNegative(argument: string, value: number): number {
  if (!(value >= 0) || !Number.isFinite(value)) {
    throw new OutOfRangeError(argument, value, "a finite number of at least 0");
  }
  return value;
}

export function requireFinite(argument: string, value: number): number {
  if (!Number.isFinite(value)) throw new OutOfRangeError(argument, value, "a finite number");
  return value;
}

/** Open interval: low < value < high. */
export function requireBetween(argument: string, value: number, low: number, high: number): number {
  if (!(value > low && value < high)) throw new OutOfRangeError(argument, value, `between ${low} and ${high}`);
  return value;
}
