import { parseQuantity } from "../quantities/parseQuantity";
import type { ComponentRatings } from "../replacement/compareComponents";
import {
  type ComponentKind,
  type ComponentRating,
  componentKinds,
  componentRatings,
  type RatingName,
  ratingNames,
} from "../replacement/componentRatings";

/** A part that is no electrolytic, as a file lists it. Its kind, maker and type tell it from every other. */
export interface ComponentEntry {
  readonly kind: ComponentKind;
  readonly maker: string;
  readonly typeNumber: string;
  readonly ratings: ComponentRatings;
  readonly priceMinor: number;
}

export const componentBasics = ["kind", "maker", "typeNumber", "price"] as const;
export type ComponentColumn = (typeof componentBasics)[number] | RatingName;

export type ComponentFaultCode =
  | "no_kind"
  | "empty"
  | "not_a_number"
  | "outside"
  | "not_a_word"
  | "too_long"
  | "like_formula"
  | "doubled";

export interface ComponentFault {
  readonly column: ComponentColumn;
  readonly code: ComponentFaultCode;
  readonly text: string;
  /** The words that it can be, where there are only so many; the row that said it first, where it is doubled. */
  readonly words?: readonly string[];
  readonly otherRow?: number;
}

const [longestText, mostPriceMinor] = [40, 100_000_000] as const;
/** More than any such part has, by what its rating is counted in: catches a slipped unit or column. Rough. */
const mostOf: readonly (readonly [RegExp, number])[] = [
  [/Metres$/, 1],
  [/Ratio/, 20],
  [/Farads$/, 1],
  [/Coulombs$/, 1e-3],
  [/Seconds$/, 1],
  [/Volts$/, 1e5],
  [/Amps$/, 1e6],
  [/^(watts|joules)$/, 1e5],
];
const mostNumber = (name: RatingName): number => mostOf.find(([pattern]) => pattern.test(name))?.[1] ?? 1e12;

/** A header as a word for each column: `on ohms` for `onOhms`. */
export const componentHeader = (column: ComponentColumn): string =>
  column === "typeNumber" ? "type" : column.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

/** Headers of a file that this program writes; it reads them back. Bare numbers below them are SI. */
export const componentHeaders: readonly string[] = [...componentBasics, ...ratingNames].map(componentHeader);

/** Which column a header names; null where nobody can tell: it is left out. */
export function mapComponentHeader(header: string): ComponentColumn | null {
  const name = header.trim().toLowerCase().replace(/[_-]/g, " ").replace(/\s+/g, " ");
  return [...componentBasics, ...ratingNames].find((one) => componentHeader(one) === name) ?? null;
}

/**
 * One row of a file of other parts: the part, or everything that is wrong with it. A rating that its kind does not compare is left
 * out; one that is not there is not known.
 *
 * @param columns of the row, in their order; null: left out
 */
export function readComponentRow(
  cells: readonly string[],
  columns: readonly (ComponentColumn | null)[],
  minorPerUnit: number,
): { readonly entry: ComponentEntry } | { readonly faults: readonly ComponentFault[] } {
  const faults: ComponentFault[] = [];
  const at = (column: ComponentColumn) => (cells[columns.indexOf(column)] ?? "").trim();
  const kindText = at("kind").toLowerCase().replace(/[ -]/g, "_");
  const kind = componentKinds.find((one) => one === kindText);
  if (!kind) return { faults: [{ column: "kind", code: "no_kind", text: at("kind"), words: componentKinds }] };
  const word = (column: ComponentColumn): string => {
    const text = at(column);
    if (text === "") faults.push({ column, code: "empty", text });
    faults.push(...wordFaults(column, text));
    return text;
  };
  const [maker, typeNumber] = [word("maker"), word("typeNumber")];
  const priceText = at("price");
  const price = numberOf(priceText, "");
  if (priceText === "") faults.push({ column: "price", code: "empty", text: "" });
  else if (price === null) faults.push({ column: "price", code: "not_a_number", text: priceText });
  const ratings: Partial<Record<RatingName, number | string>> = {};
  for (const rating of componentRatings[kind]) {
    const text = at(rating.name);
    if (text === "") continue;
    const value = isNumeric(rating) ? numberOf(text, rating.unit ?? "") : text;
    if (value === null) faults.push({ column: rating.name, code: "not_a_number", text });
    else ratings[rating.name] = value;
  }
  if (faults.length > 0) return { faults };
  const entry = { kind, maker, typeNumber, ratings, priceMinor: Math.round((price ?? 0) * minorPerUnit) };
  const doubts = componentDoubts(entry);
  return doubts.length > 0 ? { faults: doubts } : { entry };
}

/** A word where the rating is compared as a word; everything else is a number. */
const isNumeric = (rating: ComponentRating): boolean => rating.rule !== "same_word" && rating.rule !== "not_weaker";

function wordFaults(column: ComponentColumn, text: string): readonly ComponentFault[] {
  if (text.length > longestText) return [{ column, code: "too_long", text: text.slice(0, longestText) }];
  // A table program would carry it out where the file is opened again.
  return /^[=+\-@\t\r]/.test(text) ? [{ column, code: "like_formula", text }] : [];
}

/** A number, bare in SI or with its unit; a decimal comma counts as a point. null: none. */
function numberOf(text: string, unit: NonNullable<ComponentRating["unit"]> | ""): number | null {
  const compact = text.replace(/[\s\u00a0\u202f]/g, "").replace(",", ".");
  const bare = Number(compact);
  if (compact !== "" && Number.isFinite(bare)) return bare;
  if (unit === "") return null;
  const parsed = parseQuantity(compact, unit);
  return parsed.ok ? parsed.value : null;
}

/** What cannot be true of such a part: a number that is none or not above 0, a word that means nothing, a kind's rating that it has not. */
export function componentDoubts(entry: ComponentEntry): readonly ComponentFault[] {
  const { kind, maker, typeNumber, ratings, priceMinor } = entry;
  const faults: ComponentFault[] = [];
  for (const [column, text] of [["maker", maker] as const, ["typeNumber", typeNumber] as const]) {
    if (text.trim() === "") faults.push({ column, code: "empty", text });
    faults.push(...wordFaults(column, text));
  }
  if (!Number.isInteger(priceMinor) || priceMinor < 0 || priceMinor > mostPriceMinor) {
    faults.push({ column: "price", code: "outside", text: String(priceMinor) });
  }
  for (const [name, value] of Object.entries(ratings) as [RatingName, unknown][]) {
    const rating = componentRatings[kind].find((one) => one.name === name);
    const text = String(value);
    if (!rating) faults.push({ column: name, code: "not_a_word", text });
    else if (isNumeric(rating)) {
      if (typeof value !== "number" || !(value > 0 && value <= mostNumber(name))) {
        faults.push({ column: name, code: "outside", text });
      }
    } else if (typeof value !== "string") faults.push({ column: name, code: "not_a_word", text });
    else {
      faults.push(...wordFaults(name, value));
      if (rating.rule === "not_weaker" && !rating.order.includes(value)) {
        faults.push({ column: name, code: "not_a_word", text, words: rating.order });
      }
    }
  }
  return faults;
}

/** What tells such a part from every other. */
export const componentKey = ({
  kind,
  maker,
  typeNumber,
}: Pick<ComponentEntry, "kind" | "maker" | "typeNumber">): string =>
  [kind, maker, typeNumber].map((one) => one.trim().toLowerCase()).join("\u0000");

/** A part as a row under `componentHeaders`. */
export const componentCells = (entry: ComponentEntry, minorPerUnit: number): readonly (string | number)[] => [
  ...[entry.kind, entry.maker, entry.typeNumber, Number((entry.priceMinor / minorPerUnit).toPrecision(12))],
  ...ratingNames.map((name) => entry.ratings[name] ?? ""),
];
