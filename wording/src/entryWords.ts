import {
  type EntryProblem,
  formatMarkedCapacitance,
  formatQuantity,
  longestRange,
  type OwnPartEntry,
  type PartEntry,
  type PartKind,
  type PartSource,
} from "@pale-cap/core";
import { directionWord } from "./boardWords";

export const partKindLabels: Readonly<Record<PartKind, string>> = {
  electrolytic: "electrolytic",
  film: "film or ceramic",
  fuse: "fuse",
  "thermal-fuse": "thermal fuse",
  relay: "relay",
  ptc: "PTC thermistor",
  varistor: "varistor",
  zener: "zener or clamp diode",
  ntc: "thermistor",
  bridge: "bridge",
  diode: "diode",
  transistor: "transistor",
  resistor: "resistor or shunt",
  ic: "IC",
  optocoupler: "optocoupler",
  transformer: "transformer",
  choke: "choke",
  connector: "connector",
  fan: "fan",
  regulator: "regulator",
  "heat-sink": "heat sink",
};

export const classLabels = {
  gp: "general purpose",
  lowz: "low impedance",
  ultra: "very low impedance",
  polymer: "polymer",
  hybrid: "hybrid",
};

/** What was understood of a line, piece by piece, in the order of a sleeve. */
export function understoodWords(entry: PartEntry, railName: string | null): readonly string[] {
  const mm = (metres: number) => formatQuantity(metres, "mm", { significantDigits: 4 }).text;
  const { designators, diameterMetres, heightMetres, xMetres, yMetres } = entry;
  const names = designators.length > 1 ? `${designators[0]} to ${designators.at(-1)}` : (designators[0] ?? "");
  const pieces = [
    names,
    entry.kind === "electrolytic" ? null : partKindLabels[entry.kind],
    railName,
    entry.capacitanceFarads === null ? null : formatMarkedCapacitance(entry.capacitanceFarads),
    entry.toleranceRatio === null ? null : `±${Math.round(entry.toleranceRatio * 100)}\u00a0%`,
    entry.ratedVolts === null ? null : `${entry.ratedVolts}\u00a0V`,
    entry.temperatureClassCelsius === null ? null : `${entry.temperatureClassCelsius}\u00a0°C`,
    entry.capacitorClass && classLabels[entry.capacitorClass],
    diameterMetres === null || heightMetres === null
      ? null
      : entry.kind === "electrolytic"
        ? `⌀\u00a0${mm(diameterMetres)}, ${mm(heightMetres)} high`
        : `${mm(diameterMetres)} × ${mm(heightMetres)}`,
    entry.pitchMetres === null ? null : `pitch ${mm(entry.pitchMetres)}`,
    xMetres === null || yMetres === null ? null : `at ${mm(xMetres)}, ${mm(yMetres)}`,
    entry.stripeDegrees === null ? null : `stripe ${directionWord(entry.stripeDegrees)}`,
    entry.isNonPolar ? "non-polar" : null,
    entry.series && `series ${entry.series}`,
  ];
  return pieces.filter((piece): piece is string => Boolean(piece));
}

export const sourceLabels: Readonly<Record<PartSource, string>> = {
  drawer: "from a drawer",
  bought: "bought for it",
  salvaged: "salvaged",
  unknown: "origin not noted",
};

/** What was understood of a part in the hand. */
export function ownPartWords(entry: OwnPartEntry): readonly string[] {
  const mm = (metres: number) => formatQuantity(metres, "mm", { significantDigits: 4 }).text;
  const { diameterMetres, heightMetres } = entry;
  const pieces = [
    entry.capacitanceFarads === null ? null : formatMarkedCapacitance(entry.capacitanceFarads),
    entry.ratedVolts === null ? null : `${entry.ratedVolts}\u00a0V`,
    entry.temperatureClassCelsius === null ? null : `${entry.temperatureClassCelsius}\u00a0°C`,
    entry.capacitorClass && classLabels[entry.capacitorClass],
    diameterMetres === null || heightMetres === null ? null : `⌀\u00a0${mm(diameterMetres)}, ${mm(heightMetres)} high`,
    entry.isNonPolar ? "non-polar" : null,
    entry.series && `series ${entry.series}`,
    sourceLabels[entry.source],
    entry.esrOhms === null ? null : `ESR read ${formatQuantity(entry.esrOhms, "Ω").text}`,
    entry.readFarads === null ? null : `C read ${formatQuantity(entry.readFarads, "F").text}`,
  ];
  return pieces.filter((piece): piece is string => Boolean(piece));
}

/** What is wrong with one word of a line, and how to go on. */
export function entryProblemWords({ code, word }: EntryProblem): string {
  switch (code) {
    case "not_understood":
      return `“${word}” is not understood`;
    case "said_twice":
      return `“${word}” says something again`;
    case "two_decimal_marks":
      return `“${word}” has two decimal marks`;
    case "comma_thousand":
      return `“${word}”: a thousand, or a decimal? Write it without the comma, or with a point`;
    case "range_backwards":
      return `“${word}” runs backwards`;
    case "range_too_long":
      return `“${word}” is longer than ${longestRange} parts`;
    case "no_designator":
      return "a designator is needed, like C14";
    case "value_needed":
      return "value and volts are needed, like 1000u 25v";
    case "unit_needed":
      return `“${word}”: ohms or milliohms, microfarads? Write it with its letter, like 41m, 0R41, 980u`;
    case "not_of_part":
      return "only the part itself: its place is chosen above";
    case "out_of_range":
      return `“${word}” cannot be meant; a unit slipped?`;
  }
}
