import { prefixExponents, printedPrefix, type SiPrefix } from "./siPrefixes";
import { type Unit, unitFacts } from "./units";

export interface FormattedQuantity {
  readonly number: string;
  /** Prefix and unit as printed, for example mΩ. */
  readonly unit: string;
  /** Both, joined by a space that does not break. */
  readonly text: string;
  readonly prefix: SiPrefix;
}

export interface FormatOptions {
  /** Default 3. */
  readonly significantDigits?: number;
  /** Print trailing zeros (a measured value) or drop them (a marking). Default false. */
  readonly keepsZeros?: boolean;
  /** No larger prefix than this one: capacitor markings stay in microfarads. */
  readonly largestPrefix?: SiPrefix;
}

const ascending = (Object.keys(prefixExponents) as SiPrefix[]).sort((a, b) => prefixExponents[a] - prefixExponents[b]);

/**
 * A value with one to three digits before the point, rounded to significant digits.
 *
 * Rounding comes before the choice of prefix, so 999.96 m prints as 1 and never as 1000 m.
 *
 * @param value SI base unit (ratio for %, metres for mm), finite
 */
export function formatQuantity(value: number, unit: Unit, options: FormatOptions = {}): FormattedQuantity {
  const digits = options.significantDigits ?? 3;
  const rounded = Number(value.toPrecision(digits));
  const { takesPrefix, storedExponent } = unitFacts[unit];
  const prefix = takesPrefix ? choosePrefix(rounded, options.largestPrefix) : "";
  const exponent = takesPrefix ? prefixExponents[prefix] : storedExponent;
  const scaled = Number(`${rounded.toExponential().replace(/e.*/, "")}e${exponentOf(rounded) - exponent}`);
  const number =
    options.keepsZeros && rounded !== 0 ? fixedDigits(scaled, digits) : String(Number(scaled.toPrecision(12)));
  const shown = `${takesPrefix ? printedPrefix(prefix) : ""}${unit}`;
  return { number, unit: shown, text: `${number}\u00a0${shown}`, prefix };
}

/** 1000 uF, not 1 mF: what is printed on a sleeve. */
export function formatMarkedCapacitance(farads: number): string {
  return formatQuantity(farads, "F", { largestPrefix: "u", significantDigits: 4 }).text;
}

function exponentOf(value: number): number {
  return value === 0 ? 0 : Number(value.toExponential().split("e")[1]);
}

function choosePrefix(value: number, largest: SiPrefix = "G"): SiPrefix {
  if (value === 0) return "";
  const exponent = exponentOf(value);
  const fitting = ascending.filter(
    (prefix) => prefixExponents[prefix] <= exponent && prefixExponents[prefix] <= prefixExponents[largest],
  );
  return fitting.at(-1) ?? "p";
}

function fixedDigits(value: number, digits: number): string {
  const before = Math.max(Math.floor(Math.log10(Math.abs(value))) + 1, 1);
  return value.toFixed(Math.max(digits - before, 0));
}
