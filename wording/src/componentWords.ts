import {
  type ComparedRating,
  type ComponentColumn,
  type ComponentFault,
  type ComponentKind,
  type ComponentRating,
  type ComponentVerdict,
  formatQuantity,
  type RatingName,
} from "@pale-cap/core";
import { listWords } from "./boardWords";

export const componentKindLabels: Readonly<Record<ComponentKind, string>> = {
  transistor: "transistor",
  diode: "diode",
  bridge: "bridge",
  rectifier: "double rectifier",
  fuse: "fuse",
  ntc: "inrush thermistor",
  varistor: "varistor",
  shunt: "shunt",
  fusible_resistor: "fusible resistor",
  x_capacitor: "X capacitor",
  y_capacitor: "Y capacitor",
  optocoupler: "optocoupler",
  regulator: "regulator",
  control_ic: "control IC",
  fan: "fan",
};

export const ratingLabels: Readonly<Record<RatingName, string>> = {
  ratedVolts: "volts",
  ratedAmps: "amperes",
  onOhms: "Rds(on)",
  gateChargeCoulombs: "gate charge",
  recoverySeconds: "recovery",
  surgeAmps: "surge",
  forwardVolts: "forward drop",
  breakingAmps: "breaking capacity",
  coldOhms: "cold",
  steadyAmps: "steady current",
  joules: "energy",
  ohms: "ohms",
  watts: "watts",
  toleranceRatio: "tolerance",
  capacitanceFarads: "C",
  transferRatioMin: "transfer ratio, least",
  transferRatioMax: "transfer ratio, most",
  isolationVolts: "isolation",
  creepageMetres: "creepage",
  outputVolts: "output",
  dropoutVolts: "dropout",
  startVolts: "starts at",
  stopVolts: "stops at",
  frequencyHertz: "frequency",
  senseVolts: "sense level",
  airflow: "air, m³/h",
  pitchMetres: "pitch",
  sizeMetres: "size",
  channel: "channel",
  package: "package",
  tab: "tab",
  speed: "kind",
  size: "size",
  safetyClass: "class",
  fusible: "fusible",
  pinout: "pin-out",
  connector: "connector",
};

/** What a column of a file of other parts is called. */
export const componentColumnLabel = (column: ComponentColumn): string => {
  if (column === "kind" || column === "maker" || column === "price") return column;
  return column === "typeNumber" ? "type" : ratingLabels[column];
};

/** What is wrong with a row of a file of other parts. */
export function componentFaultWords({ column, code, text, words, otherRow }: ComponentFault): string {
  const name = componentColumnLabel(column);
  const shown = text === "" ? "" : ` “${text}”`;
  switch (code) {
    case "no_kind":
      return `kind${shown} is none of ${(words ?? []).join(", ")}`;
    case "empty":
      return `${name} is missing`;
    case "not_a_number":
      return `${name}${shown} is not a number`;
    case "outside":
      return `${name}${shown} cannot be; a unit or a column slipped?`;
    case "not_a_word":
      return words ? `${name}${shown} is none of ${words.join(", ")}` : `${name}${shown} means nothing here`;
    case "too_long":
      return `${name} is too long`;
    case "like_formula":
      return `${name}${shown} begins like a formula`;
    case "doubled":
      return `kind, maker and type stand in row ${otherRow ?? "?"} already`;
  }
}

export const componentVerdictLabels: Readonly<Record<ComponentVerdict, string>> = {
  fits: "fits by its ratings",
  with_reason: "with a reason",
  cannot_tell: "cannot tell",
  never: "not here",
};

export function ratingText(rating: ComponentRating, value: number | string | null): string {
  if (value === null) return "–";
  if (typeof value === "string" || rating.unit === null) return String(value);
  // Nanocoulombs are what sheets print.
  if (rating.name === "gateChargeCoulombs") return `${Number((value * 1e9).toPrecision(3))}\u00a0nC`;
  return formatQuantity(value, rating.unit).text.trim();
}

/** Why a part is not simply taken: what falls short, and what is not known. */
export function componentGapWords(ratings: readonly ComparedRating[]): string {
  const short = ratings
    .filter((one) => one.verdict === "worse" || one.verdict === "refused")
    .map(
      ({ rating, before, after }) =>
        `${ratingLabels[rating.name]} ${ratingText(rating, after)} for ${ratingText(rating, before)}`,
    );
  const unknown = (verdict: string) =>
    ratings.filter((one) => one.verdict === verdict).map((one) => ratingLabels[one.rating.name]);
  const [old, fresh] = [unknown("old_not_known"), unknown("new_not_known")];
  return [
    ...short,
    ...(old.length > 0 ? [`of the old one not known: ${listWords(old)}`] : []),
    ...(fresh.length > 0 ? [`of this one not known: ${listWords(fresh)}`] : []),
  ].join("; ");
}

/** What else is looked at before such a part goes in. */
export const componentCautions: Readonly<Partial<Record<ComponentKind, string>>> = {
  transistor: "Never two kinds in parallel. Its driver, shunt and snubber are tested before it goes in.",
  fuse: "Find out first why the old one blew. Never a stronger, a quicker or a mended one.",
  fusible_resistor: "It is a fuse too: the same watts, flame-proof, and what made it open is found first.",
  x_capacitor: "Only with its approval printed on it.",
  y_capacitor: "Only with its approval printed on it: it bridges the insulation to where hands are.",
  optocoupler: "It bridges the insulation: creepage beneath it stays free of flux and glue.",
  control_ic: "An unknown one is told by its pin-out, its supply and what it senses: a masked name proves nothing.",
};
