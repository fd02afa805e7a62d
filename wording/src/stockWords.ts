import type { StockActKind, StockOrigin } from "@pale-cap/contract";
import type {
  CatalogueColumn,
  FirstReason,
  HeapDoubt,
  LooseCharge,
  LotDecision,
  MovementKind,
  PieceDoubt,
  ReformAdvice,
  ReplacementOrder,
  RowFault,
  ShelfNeed,
} from "@pale-cap/core";
import { type ComponentKind, catalogueUnits, componentRatings, formatQuantity } from "@pale-cap/core";
import { listWords } from "./boardWords";
import { ratingLabels, ratingText } from "./componentWords";
import { moneyText } from "./money";

export const originLabels: Readonly<Record<StockOrigin, string>> = {
  distributor: "bought new",
  salvaged: "salvaged",
  unknown: "nobody knows",
};

export const movementLabels: Readonly<Record<MovementKind, string>> = {
  received: "came in",
  fitted: "went into a unit",
  put_back: "came back out",
  scrapped: "scrapped",
  counted: "counted",
  reserved: "promised",
  released: "promise given back",
};

export const orderLabels: Readonly<Record<ReplacementOrder, string>> = {
  longest_life: "longest life first",
  expected_cost: "lowest cost first, a return counted",
  drawer_first: "from the drawer first",
};

/** Why the first line stands first. */
export function firstReasonWords(reason: FirstReason): string {
  switch (reason) {
    case "lasts_longest":
      return "First: it is expected to last longest.";
    case "lasts_longest_by_load":
      return "First: several are expected to last as long as is reckoned; of these it is loaded least.";
    case "costs_least":
      return "First: it costs least, with what a return within the warranty would cost counted by its chance.";
    case "lies_in_drawer":
      return "First: it lies in a drawer, and of those it is expected to last longest.";
    case "none_in_drawer":
      return "None that fits lies in a drawer: by expected life.";
  }
}

const doubts: Readonly<Record<HeapDoubt, string>> = {
  capacitance_not_read: "its C was not read",
  esr_not_read: "its ESR was not read",
  capacitance_low: "its C has fallen",
  esr_high: "its ESR is too high for a part that still has life in it",
  voltage_loss_high: "it loses voltage",
  age_not_known: "nobody knows how long it worked",
  life_used_up: "its hours are used up",
  class: "its kind is not known",
  temperature_class: "its temperature class is not known",
  size: "its size is not known",
  pitch: "its pitch is not known",
  esr: "its ESR was not read",
  never_salvaged_here: "a salvaged part never goes in as a bulk",
  source: "the house rule takes no parts from there",
  charged: "it may hold charge: drain it and read it twice",
  reform: "it lay so long that it has to be re-formed",
  leakage_test: "it lay so long that its leakage has to be tested",
};

export const heapDoubtWords = (found: readonly HeapDoubt[]): string => listWords(found.map((one) => doubts[one]));

export function shelfWords(need: ShelfNeed): string | null {
  if (need === "reform") return "lay too long: re-form it before it goes in";
  if (need === "leakage_test") return "lay long: test its leakage before it goes in";
  return need === "not_known" ? "no date is known" : null;
}

export const looseChargeWords: Readonly<Record<LooseCharge, string>> = {
  never_charged: "Nothing was put on it here.",
  covered: "Take it as charged: volts stood on it, and nothing shows yet that they are gone. Keep its leads covered.",
  one_reading: "Read low once since it was drained. It can come back: wait a minute and read again.",
  two_readings: "Drained, and read low twice. What was read is said here; it may still give back a little.",
};

export const reformAdviceWords: Readonly<Record<ReformAdvice, string>> = {
  begin: "Set the first step and log what flows.",
  wait: "Leave it at this step and log again in a minute or two.",
  next_step: "Go on to the next step.",
  stop_rising: "Stop: the current rises. Drain it; it is not to be used.",
  stop_hot: "Stop: the can is too warm. Drain it; it is not to be used.",
  stop_not_forming: "Stop: after an hour at its rated volts it still draws too much. Drain it; it is not to be used.",
  formed: "An hour at its rated volts, and it draws little. Drain it, let it rest a day, then read C and ESR.",
};

export const actLabels: Readonly<Record<StockActKind, string>> = {
  capacitance_read: "C",
  esr_read: "ESR",
  voltage_loss_read: "voltage loss",
  leakage_read: "leakage",
  volts_read: "volts between its leads",
  drained: "drained through",
  reform_step: "re-forming",
  reform_ended: "re-forming ended",
};

export const columnLabels: Readonly<Record<CatalogueColumn, string>> = {
  maker: "maker",
  series: "series",
  orderCode: "order code",
  capacitorClass: "class",
  capacitanceFarads: "capacitance",
  ratedVolts: "rated volts",
  temperatureClassCelsius: "temperature class",
  diameterMetres: "diameter",
  heightMetres: "height",
  pitchMetres: "pitch",
  esrOhms: "ESR",
  rippleAmpsRms: "ripple current",
  ratedLifeHours: "rated life",
  price: "price",
  ratingHertz: "frequency of the ratings",
  dissipationFactorRatio: "tan delta",
};

function spanWords(column: CatalogueColumn, limits: readonly [number, number]): string {
  const unit = catalogueUnits[column];
  if (!unit) return "";
  return `: parts have ${formatQuantity(limits[0], unit).text} to ${formatQuantity(limits[1], unit).text}`;
}

/** What is wrong with one cell of a catalogue file. */
export function rowFaultWords({ column, code, text, limits, otherRow }: RowFault): string {
  const name = columnLabels[column];
  const shown = text === "" ? "" : ` “${text}”`;
  switch (code) {
    case "empty":
      return `${name} is missing`;
    case "not_a_number":
      return `${name}${shown} is not a number`;
    case "other_mark":
      return `${name}${shown} has the other decimal mark than the file`;
    case "not_a_class":
      return `class${shown} is none of gp, lowz, ultra, polymer, hybrid`;
    case "outside":
      return `${name}${shown} cannot be${limits ? spanWords(column, limits) : ""}; a unit or a column slipped?`;
    case "too_dense":
      return `so much ${name} at these volts does not go into so small a can`;
    case "no_esr":
      return "neither ESR nor tan delta is given";
    case "too_long":
      return `${name} is too long`;
    case "like_formula":
      return `${name}${shown} begins like a formula`;
    case "doubled":
      return `maker, series and order code stand in row ${otherRow ?? "?"} already`;
  }
}

const pieceDoubts: Readonly<Record<PieceDoubt, string>> = {
  hollow: "far too light: a small can in a big sleeve",
  mass_off: "weight off",
  size_off: "size off",
  esr_high: "ESR above the sheet",
  capacitance_off: "C off by more than a fifth",
};
export const pieceDoubtWords = (found: readonly PieceDoubt[]): string =>
  listWords(found.map((one) => pieceDoubts[one]));

/** What a sample says of a lot. */
export function lotWords(
  lot: Pick<LotDecision, "tooManyProbability" | "decision"> & { readonly moreCount?: number | null },
  allowedBadRatio: number,
): string {
  const chance = `${Math.round(100 * lot.tooManyProbability)} % that more than ${Math.round(100 * allowedBadRatio)} % of it are bad`;
  if (lot.decision === "accept") return `Taken: ${chance}.`;
  if (lot.decision === "reject") return `Not taken: ${chance}. It is kept apart.`;
  const more = lot.moreCount == null ? "" : ` ${lot.moreCount} more, all good, would settle it.`;
  return `Not settled: ${chance}.${more}`;
}

/** What a second file changed in one field of a part. */
export function importChangeWords(
  { name, before, after }: { readonly name: string; readonly before: number | string; readonly after: number | string },
  currency: string,
): string {
  const column = (name === "priceMinor" ? "price" : name) as CatalogueColumn;
  const unit = catalogueUnits[column];
  const shown = (value: number | string) =>
    typeof value === "string" ? value : unit ? formatQuantity(value, unit).text : moneyText(value, currency);
  return `${columnLabels[column] ?? name} ${shown(before)}, now ${shown(after)}`;
}

/** What a file changed of another part: by the rating's own unit. */
export function componentChangeWords(
  { name, before, after }: { readonly name: string; readonly before: number | string; readonly after: number | string },
  kind: ComponentKind,
  currency: string,
): string {
  const rating = componentRatings[kind].find((one) => one.name === name);
  const shown = (value: number | string) =>
    value === "" ? "not given" : rating ? ratingText(rating, value) : moneyText(Number(value), currency);
  return `${rating ? ratingLabels[rating.name] : "price"} ${shown(before)}, now ${shown(after)}`;
}
