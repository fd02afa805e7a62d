import { formatQuantity } from "../quantities/formatQuantity";
import { classWords, kindOfDesignator, nonPolarWords, sectionWords, stripeWords } from "./entryWords";
import type { PartEntry } from "./parsePartEntry";

/** One line of quick entry that reads back to the same entry, in the order in which a sleeve is read. */
export function printPartEntry(entry: PartEntry): string {
  const words: (string | null)[] = [
    range(entry.designators),
    entry.kind === kindOfDesignator(entry.designators[0] ?? "") ? null : `is:${entry.kind}`,
    entry.section && (sectionWords[entry.section][0] ?? null),
    entry.railName && `:"${entry.railName}"`,
    entry.capacitanceFarads === null ? null : farads(entry.capacitanceFarads),
    entry.toleranceRatio === null ? null : `${Math.round(entry.toleranceRatio * 100)}%`,
    entry.ratedVolts === null ? null : `${entry.ratedVolts}v`,
    entry.temperatureClassCelsius === null ? null : `${entry.temperatureClassCelsius}c`,
    entry.capacitorClass && (classWords[entry.capacitorClass][0] ?? null),
    entry.diameterMetres === null || entry.heightMetres === null
      ? null
      : `${millimetres(entry.diameterMetres)}x${millimetres(entry.heightMetres)}`,
    entry.pitchMetres === null ? null : `p${millimetres(entry.pitchMetres)}`,
    entry.xMetres === null || entry.yMetres === null
      ? null
      : `@${millimetres(entry.xMetres)}/${millimetres(entry.yMetres)}`,
    Object.keys(stripeWords).find((word) => stripeWords[word] === entry.stripeDegrees) ?? null,
    entry.isNonPolar ? (nonPolarWords[0] ?? null) : null,
    entry.series && `"${entry.series}"`,
  ];
  return words.filter(Boolean).join(" ");
}

/** Designators as a range where they run on, else only the first: a line stands for one value. */
function range(designators: readonly string[]): string {
  const [first] = designators;
  const last = designators.at(-1);
  if (!first || !last || first === last) return first ?? "";
  return `${first}-${last}`;
}

const millimetres = (metres: number) => String(Number((metres * 1e3).toPrecision(9)));

function farads(value: number): string {
  const { number, prefix } = formatQuantity(value, "F", { significantDigits: 9, largestPrefix: "u" });
  return `${number}${prefix}F`;
}
