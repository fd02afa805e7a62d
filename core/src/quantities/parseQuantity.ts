import { prefixExponents, type SiPrefix } from "./siPrefixes";
import { type Unit, unitFacts } from "./units";

export type ParseFailure =
  | { readonly code: "empty" }
  /** Two decimal marks: the two ways in which the digits can be meant. */
  | { readonly code: "ambiguous_marks"; readonly readings: readonly [string, string] }
  /** One digit, a comma, three digits: a thousand, or a decimal. */
  | { readonly code: "comma_thousand"; readonly readings: readonly [string, string] }
  | { readonly code: "prefix_not_used"; readonly unit: Unit }
  | { readonly code: "not_a_quantity"; readonly unit: Unit };

export type ParsedQuantity =
  | { readonly ok: true; readonly value: number; readonly isBare: boolean }
  | { readonly ok: false; readonly failure: ParseFailure };

const plain = /^([+-]?)(\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE]([+-]?\d{1,3}))?([pnumkKMG]?)$/;
const infix = /^([+-]?)(\d*)([pnumkKMGRr])(\d+)$/;

/**
 * Reads a number as bench people write it: `4u7`, `1000 uF`, `0R41`, `33m`, `1,5k`, `2.2e-3`.
 *
 * A lone comma or point is the decimal mark. Two marks are refused with both readings, and so is `1,000`: a thousand, or
 * one in three decimals. A number without a prefix takes
 * `defaultPrefix`, unless its unit is spelled out. Never throws.
 *
 * @returns the value in SI base units (ratio for %, metres for mm)
 * @example parseQuantity("4u7", "F") // { ok: true, value: 4.7e-6, isBare: false }
 */
export function parseQuantity(text: string, unit: Unit, defaultPrefix: SiPrefix = ""): ParsedQuantity {
  const compact = text
    .normalize("NFC")
    .replace(/[\s\u00a0\u202f]/g, "")
    .replace(/[µμ]/g, "u")
    .replace(/−/g, "-");
  if (compact === "") return refused({ code: "empty" });
  const whole = parseDigits(compact, unit);
  const { spellings, storedExponent } = unitFacts[unit];
  const spelling = whole ? undefined : spellings.find((candidate) => compact.endsWith(candidate));
  const digits = whole ? compact : spelling ? compact.slice(0, -spelling.length) : compact;
  const marks = digits.replace(/[^.,]/g, "");
  if (marks.length > 1 && /^[+-]?[\d.,]+[a-zA-Z]?$/.test(digits)) return refused(ambiguity(digits));
  const thousand = /^([+-]?[1-9]),(\d{3})(?![\d.,])/.exec(digits);
  if (thousand)
    return refused({
      code: "comma_thousand",
      readings: [`${thousand[1]}${thousand[2]}`, `${thousand[1]}.${thousand[2]}`],
    });
  const parsed = whole ?? parseDigits(digits, unit);
  if (!parsed) return refused({ code: "not_a_quantity", unit });
  if (parsed.prefix !== null && !unitFacts[unit].takesPrefix) return refused({ code: "prefix_not_used", unit });
  // A unit that is spelled out, R for ohm too, means the unit itself.
  const prefix = parsed.prefix ?? (spelling ? "" : defaultPrefix);
  const exponent = parsed.exponent + prefixExponents[prefix] + storedExponent;
  const value = Number(`${parsed.number}e${exponent}`);
  if (!Number.isFinite(value)) return refused({ code: "not_a_quantity", unit });
  return { ok: true, value, isBare: parsed.prefix === null && !spelling };
}

function refused(failure: ParseFailure): ParsedQuantity {
  return { ok: false, failure };
}

interface Digits {
  readonly number: string;
  readonly exponent: number;
  readonly prefix: SiPrefix | null;
}

function parseDigits(text: string, unit: Unit): Digits | null {
  const match = plain.exec(text);
  if (match) {
    const [, sign, number = "", exponent, letter] = match;
    return {
      number: `${sign}${number.replace(",", ".")}`,
      exponent: Number(exponent ?? 0),
      prefix: letter ? toPrefix(letter) : null,
    };
  }
  const inner = infix.exec(text);
  if (!inner) return null;
  const [, sign, before, letter = "", after] = inner;
  const isOhmMark = letter === "R" || letter === "r";
  if (isOhmMark && unit !== "Ω") return null;
  return { number: `${sign}${before || "0"}.${after}`, exponent: 0, prefix: isOhmMark ? "" : toPrefix(letter) };
}

function toPrefix(letter: string): SiPrefix {
  return letter === "K" ? "k" : (letter as SiPrefix);
}

/** Last mark as the decimal one with the others grouping, or the first as decimal and the rest noise. */
function ambiguity(digits: string): ParseFailure {
  const last = Math.max(digits.lastIndexOf("."), digits.lastIndexOf(","));
  const first = digits.search(/[.,]/);
  const strip = (part: string) => part.replace(/[.,]/g, "");
  const isRepeated = new Set(digits.replace(/[^.,]/g, "")).size === 1;
  const grouped = isRepeated ? strip(digits) : `${strip(digits.slice(0, last))}.${strip(digits.slice(last))}`;
  return {
    code: "ambiguous_marks",
    readings: [grouped, `${strip(digits.slice(0, first))}.${strip(digits.slice(first))}`],
  };
}
