import { OutOfRangeError } from "../src/errors";

/** The inputs object of a case. */
export type Inputs = Readonly<Record<string, unknown>>;

/** A required number; anything else is the range error that maps to invalid_input. */
export function number(inputs: Inputs, key: string): number {
  const value = inputs[key];
  if (typeof value !== "number" || !Number.isFinite(value)) throw new OutOfRangeError(key, value, "a finite number");
  return value;
}

/** A number, or null where the key is null or absent (both mean the same). */
export function optionalNumber(inputs: Inputs, key: string): number | null {
  return inputs[key] == null ? null : number(inputs, key);
}

/** One of the listed words; the fallback where the key is null or absent and a fallback is given. */
export function word<T extends string>(inputs: Inputs, key: string, allowed: readonly T[], fallback?: NoInfer<T>): T {
  const value = inputs[key] ?? fallback;
  const found = allowed.find((candidate) => candidate === value);
  if (found === undefined) throw new OutOfRangeError(key, value, `one of ${allowed.join(", ")}`);
  return found;
}

export function list(inputs: Inputs, key: string): readonly unknown[] {
  const value = inputs[key];
  if (!Array.isArray(value)) throw new OutOfRangeError(key, value, "a list");
  return value;
}

export function record(value: unknown, key: string): Inputs {
  if (typeof value !== "object" || value === null || Array.isArray(value)) {
    throw new OutOfRangeError(key, value, "an object");
  }
  return value as Inputs;
}
