import { type PartKind, partKinds } from "../board/board";
import { type Section, sections } from "../board/sections";
import { type CapacitorClass, capacitorClasses } from "../capacitors/capacitorClass";
import { parseQuantity } from "../quantities/parseQuantity";
import { classWords, kindOfDesignator, nonPolarWords, sectionWords, stripeWords } from "./entryWords";

/** What one line of quick entry says; null where it does not say it. SI, lengths in metres. */
export interface PartEntry {
  readonly designators: readonly string[];
  readonly kind: PartKind;
  readonly section: Section | null;
  /** A rail by its name, where one is named instead of a section. */
  readonly railName: string | null;
  readonly capacitanceFarads: number | null;
  readonly toleranceRatio: number | null;
  readonly ratedVolts: number | null;
  readonly temperatureClassCelsius: number | null;
  readonly capacitorClass: CapacitorClass | null;
  /** Of a can; of any other part its outline. */
  readonly diameterMetres: number | null;
  readonly heightMetres: number | null;
  readonly pitchMetres: number | null;
  readonly xMetres: number | null;
  readonly yMetres: number | null;
  readonly stripeDegrees: number | null;
  /** Either way round: it has no stripe. */
  readonly isNonPolar: boolean | null;
  readonly series: string | null;
}

export type EntryProblemCode =
  | "not_understood"
  | "said_twice"
  | "two_decimal_marks"
  | "comma_thousand"
  | "range_backwards"
  | "range_too_long"
  | "no_designator"
  | "value_needed"
  | "unit_needed"
  | "not_of_part"
  | "out_of_range";

/** A word of the line that cannot stand: shown where it is, never dropped. */
export interface EntryProblem {
  readonly code: EntryProblemCode;
  readonly word: string;
}

export interface ParsedPartEntry {
  readonly entry: PartEntry;
  readonly problems: readonly EntryProblem[];
}

/** Most designators that one range may stand for. */
export const longestRange = 60;

type Field = keyof Omit<PartEntry, "designators" | "kind"> | "kind" | "designators";
type Found = Partial<{ -readonly [K in keyof PartEntry]: PartEntry[K] }>;
type Meaning = { readonly found: Found } | { readonly problem: EntryProblemCode };

/** Largest values that are meant on a supply board; beyond them a unit slipped. */
const limits = { farads: 1, volts: 1000, celsius: 200, metres: 0.2, boardMetres: 1 } as const;

/**
 * Reads one line of quick entry: `C14 out 1000u 25v 105 10x20 p5`, its words in any order.
 *
 * Every word is understood by its own shape (documented in docs/quick-entry.md), so order does not matter and nothing has
 * to be filled in. A word that is not understood, is said twice or does not fit is reported and changes nothing else.
 * Never throws.
 */
export function parsePartEntry(line: string): ParsedPartEntry {
  const found: Found = {};
  const problems: EntryProblem[] = [];
  for (const word of words(line)) {
    const meaning = meaningOf(word);
    if ("problem" in meaning) {
      problems.push({ code: meaning.problem, word });
      continue;
    }
    const isTwice = (Object.keys(meaning.found) as Field[]).some((field) => found[field as keyof Found] !== undefined);
    if (isTwice) problems.push({ code: "said_twice", word });
    else Object.assign(found, meaning.found);
  }
  const designators = found.designators ?? [];
  if (designators.length === 0) problems.push({ code: "no_designator", word: "" });
  const nothing: PartEntry = {
    designators,
    kind: kindOfDesignator(designators[0] ?? "C"),
    section: null,
    railName: null,
    capacitanceFarads: null,
    toleranceRatio: null,
    ratedVolts: null,
    temperatureClassCelsius: null,
    capacitorClass: null,
    diameterMetres: null,
    heightMetres: null,
    pitchMetres: null,
    xMetres: null,
    yMetres: null,
    stripeDegrees: null,
    isNonPolar: null,
    series: null,
  };
  return { entry: { ...nothing, ...found }, problems };
}

/** Split at spaces; what stands between quotes or after a colon's quote stays together. */
function words(line: string): readonly string[] {
  return line.normalize("NFC").match(/:?"[^"]*"?|\S+/g) ?? [];
}

function meaningOf(word: string): Meaning {
  const lower = word.toLowerCase();
  return (
    quoted(word) ??
    designators(word) ??
    listed(lower) ??
    size(lower) ??
    placeOnBoard(lower) ??
    pitch(lower) ??
    printedPair(word) ??
    quantities(word) ?? { problem: "not_understood" }
  );
}

function quoted(word: string): Meaning | null {
  if (word.startsWith(":")) {
    const railName = word.slice(1).replaceAll('"', "").trim();
    return railName === "" ? { problem: "not_understood" } : { found: { railName } };
  }
  if (!word.startsWith('"')) return null;
  const series = word.replaceAll('"', "").trim();
  return series === "" ? { problem: "not_understood" } : { found: { series } };
}

function designators(word: string): Meaning | null {
  const match = /^([a-z]{1,4})(\d{1,4})(?:-(?:([a-z]{1,4}))?(\d{1,4}))?$/i.exec(word);
  if (!match) return null;
  const [, letters = "", first = "", again, last] = match;
  const prefix = letters.toUpperCase();
  // `105c` and `p5` are other words; one letter that is no part's is none of ours.
  if (prefix === "P") return null;
  if (last === undefined) return { found: { designators: [`${prefix}${first}`] } };
  if (again !== undefined && again.toUpperCase() !== prefix) return { problem: "not_understood" };
  const count = Number(last) - Number(first) + 1;
  if (count < 1) return { problem: "range_backwards" };
  if (count > longestRange) return { problem: "range_too_long" };
  return { found: { designators: Array.from({ length: count }, (_, n) => `${prefix}${Number(first) + n}`) } };
}

function listed(word: string): Meaning | null {
  const section = sections.find((one) => sectionWords[one].includes(word));
  if (section) return { found: { section } };
  const capacitorClass = capacitorClasses.find((one) => classWords[one].includes(word));
  if (capacitorClass) return { found: { capacitorClass } };
  const stripeDegrees = stripeWords[word];
  if (stripeDegrees !== undefined && Object.hasOwn(stripeWords, word)) return { found: { stripeDegrees } };
  if (nonPolarWords.includes(word)) return { found: { isNonPolar: true } };
  const kind = word.startsWith("is:") ? partKinds.find((one) => one === word.slice(3)) : undefined;
  return kind ? { found: { kind } } : null;
}

const number = String.raw`(\d+(?:[.,]\d+)?|[.,]\d+)`;
const toMetres = (millimetres: string) => Number(`${millimetres.replace(",", ".")}e-3`);

function size(word: string): Meaning | null {
  const match = new RegExp(`^${number}x${number}(?:mm)?$`).exec(word);
  if (!match) return null;
  const [diameterMetres, heightMetres] = [toMetres(match[1] ?? ""), toMetres(match[2] ?? "")];
  const fits = [diameterMetres, heightMetres].every((one) => one > 0 && one <= limits.metres);
  return fits ? { found: { diameterMetres, heightMetres } } : { problem: "out_of_range" };
}

function placeOnBoard(word: string): Meaning | null {
  const match = new RegExp(`^@${number}/${number}$`).exec(word);
  if (!match) return null;
  const [xMetres, yMetres] = [toMetres(match[1] ?? ""), toMetres(match[2] ?? "")];
  const fits = xMetres <= limits.boardMetres && yMetres <= limits.boardMetres;
  return fits ? { found: { xMetres, yMetres } } : { problem: "out_of_range" };
}

function pitch(word: string): Meaning | null {
  const match = new RegExp(`^p${number}(?:mm)?$`).exec(word);
  if (!match) return null;
  const pitchMetres = toMetres(match[1] ?? "");
  return pitchMetres > 0 && pitchMetres <= 0.05 ? { found: { pitchMetres } } : { problem: "out_of_range" };
}

/** Commonly printed temperature classes; a bare number is one of them or nothing. */
const temperatureClasses = [85, 105, 115, 125, 130, 135, 140, 145, 150];

function quantities(word: string): Meaning | null {
  if (/^\d+%$/.test(word)) {
    const toleranceRatio = Number(word.slice(0, -1)) / 100;
    return toleranceRatio > 0 && toleranceRatio <= 1 ? { found: { toleranceRatio } } : { problem: "out_of_range" };
  }
  const bare = /^(\d{2,3})(?:°?c)?$/i.exec(word);
  if (bare) {
    const temperatureClassCelsius = Number(bare[1]);
    if (temperatureClasses.includes(temperatureClassCelsius)) return { found: { temperatureClassCelsius } };
    return /c$/i.test(word) ? { problem: "out_of_range" } : null;
  }
  // `6v3` as on the sleeve, `25v`, `400V`; a V is never a prefix, so no capacitance is meant.
  const volts = /^(\d+(?:[.,]\d+)?)v(\d*)$/i.exec(word);
  if (volts) {
    const ratedVolts = Number(`${volts[1]?.replace(",", ".")}${volts[2] ? `.${volts[2]}` : ""}`);
    return Number.isFinite(ratedVolts) && ratedVolts > 0 && ratedVolts <= limits.volts
      ? { found: { ratedVolts } }
      : { problem: "out_of_range" };
  }
  if (!/^[\d.,]+(?:[pnumµμ]\d*f?|f)$/i.test(word)) return null;
  return capacitance(word);
}

function capacitance(word: string): Meaning {
  const parsed = parseQuantity(word.replace(/U/g, "u"), "F");
  if (!parsed.ok) {
    const { code } = parsed.failure;
    if (code === "comma_thousand") return { problem: "comma_thousand" };
    return { problem: code === "ambiguous_marks" ? "two_decimal_marks" : "not_understood" };
  }
  return parsed.value > 0 && parsed.value <= limits.farads
    ? { found: { capacitanceFarads: parsed.value } }
    : { problem: "out_of_range" };
}

/** `470/25` and `4700uF/16V`, as printed on boards and lists: microfarads before volts. */
function printedPair(word: string): Meaning | null {
  const match = /^([\d.,]+)([pnumµμ]?)f?\/(\d+(?:[.,]\d+)?)v?$/i.exec(word);
  if (!match) return null;
  const found = capacitance(`${match[1]}${match[2] || "u"}`);
  if ("problem" in found) return found;
  const ratedVolts = Number(match[3]?.replace(",", "."));
  if (!(ratedVolts > 0 && ratedVolts <= limits.volts)) return { problem: "out_of_range" };
  return { found: { ...found.found, ratedVolts } };
}
