import type { PartSource } from "../board/board";
import type { CapacitorClass } from "../capacitors/capacitorClass";
import { parseQuantity } from "../quantities/parseQuantity";
import { type EntryProblem, type PartEntry, parsePartEntry } from "./parsePartEntry";

/** A part that lies there, as one line tells it; null where it does not. SI. */
export interface OwnPartEntry {
  readonly capacitanceFarads: number | null;
  readonly ratedVolts: number | null;
  readonly temperatureClassCelsius: number | null;
  readonly capacitorClass: CapacitorClass | null;
  readonly diameterMetres: number | null;
  readonly heightMetres: number | null;
  readonly isNonPolar: boolean;
  readonly series: string | null;
  readonly source: PartSource;
  /** What was read of it before it goes in. */
  readonly esrOhms: number | null;
  readonly readFarads: number | null;
}

export interface ParsedOwnPart {
  readonly entry: OwnPartEntry;
  readonly problems: readonly EntryProblem[];
}

/** Words that say where a part came from; the first of each is the one that is offered. */
export const sourceWords: Readonly<Record<Exclude<PartSource, "unknown">, readonly string[]>> = {
  drawer: ["drawer"],
  bought: ["bought", "new"],
  salvaged: ["salvaged", "used", "pulled"],
};

/** What a line of quick entry may say that a part in the hand has not. */
const notOfHand: readonly (keyof PartEntry)[] = [
  "section",
  "railName",
  "toleranceRatio",
  "pitchMetres",
  "xMetres",
  "stripeDegrees",
];

/**
 * Reads one line about a part in the hand: `1000u 25v 105 lowz 10x20 drawer esr 41m c 980u`, its words in any order, those of
 * quick entry (docs/quick-entry.md) with where it came from and what was read of it. Value and volts are needed: without
 * them nothing can be said of it. A bare ESR could be ohms or milliohms and is refused. Never throws.
 */
export function parseOwnPart(line: string): ParsedOwnPart {
  const problems: EntryProblem[] = [];
  const sources: PartSource[] = [];
  const read: { esr: number | null; c: number | null } = { esr: null, c: null };
  const rest: string[] = [];
  const words = line.normalize("NFC").match(/"[^"]*"?|\S+/g) ?? [];
  for (let at = 0; at < words.length; at++) {
    const word = words[at] as string;
    const lower = word.toLowerCase();
    const source = (Object.keys(sourceWords) as (keyof typeof sourceWords)[]).find((one) =>
      sourceWords[one].includes(lower),
    );
    if (source) {
      if (sources.length > 0) problems.push({ code: "said_twice", word });
      else sources.push(source);
    } else if (lower === "esr" || lower === "c") {
      const number = words[++at];
      const value = number === undefined ? null : readValue(number, lower);
      const said = number === undefined ? word : `${word} ${number}`;
      if (typeof value !== "number") problems.push({ code: value ?? "not_understood", word: said });
      else if (read[lower] !== null) problems.push({ code: "said_twice", word: said });
      else read[lower] = value;
    } else rest.push(word);
  }
  const { entry, problems: others } = parsePartEntry(rest.join(" "));
  problems.push(...others.filter((one) => one.code !== "no_designator"));
  const isOfPlace = entry.designators.length > 0 || notOfHand.some((field) => entry[field] !== null);
  if (isOfPlace) problems.push({ code: "not_of_part", word: "" });
  if (line.trim() !== "" && (entry.capacitanceFarads === null || entry.ratedVolts === null)) {
    problems.push({ code: "value_needed", word: "" });
  }
  const { capacitanceFarads, ratedVolts, temperatureClassCelsius, capacitorClass, diameterMetres, heightMetres } =
    entry;
  return {
    entry: {
      ...{ capacitanceFarads, ratedVolts, temperatureClassCelsius, capacitorClass, diameterMetres, heightMetres },
      isNonPolar: entry.isNonPolar === true,
      series: entry.series,
      source: sources[0] ?? "unknown",
      esrOhms: read.esr,
      readFarads: read.c,
    },
    problems,
  };
}

function readValue(text: string, what: "esr" | "c"): number | EntryProblem["code"] {
  const parsed = parseQuantity(text.replace(/(?<=\d)U/g, "u"), what === "esr" ? "Ω" : "F");
  if (!parsed.ok) return parsed.failure.code === "comma_thousand" ? "comma_thousand" : "not_understood";
  if (parsed.isBare) return "unit_needed";
  return parsed.value > 0 ? parsed.value : "out_of_range";
}
