import {
  type ChargeRules,
  type ChargeState,
  chargeDanger,
  type DangerLevel,
  type DrainClue,
  type DrainClueCode,
  type DrainRefusal,
  type EnergyStore,
  fallOfKilogramMetres,
  formatQuantity,
  type LineSide,
  type StoreFeed,
  type StoreKind,
  type UnknownReason,
  type VoltsFirst,
} from "@pale-cap/core";
import { listWords } from "./boardWords";
import { logTime } from "./times";

const reasons: Readonly<Record<UnknownReason, string>> = {
  nothing_logged: "nothing measured yet",
  mains_connected: "mains was connected",
  live_reading: "a live reading was taken",
  meter_not_proved: "meter not proved",
  not_named: "not named yet",
  dc_fed: "d.c. was fed in",
  insulation_test: "an insulation test leaves charge behind",
  verification_expired: "too long ago, measure again",
  clock_ahead: "that computer's clock runs ahead: it verifies nothing",
  clock_unknown: "nobody knows how long ago: measure again",
};

export const storeKindLabels: Readonly<Record<StoreKind, string>> = {
  bulk: "Bulk",
  pfc_bulk: "PFC bulk",
  series_half: "One of two in series",
  series_pair: "Two in series",
  x_capacitor: "X capacitor at the plug",
  output_bank: "Output bank",
  other: "Other store",
};

export const lineSideLabels: Readonly<Record<LineSide, string>> = {
  plug: "at the plug",
  behind_fuse: "behind the fuse",
};

export const feedLabels: Readonly<Record<StoreFeed, string>> = {
  bridge: "behind a bridge: crest of the mains",
  doubler: "doubler, the whole: twice the crest",
  doubler_half: "doubler, one half: the crest",
  pair_half: "one of two in series: half the crest",
  pfc: "behind PFC: about 390 V, the crest if it never started",
  line: "at the line: up to the crest",
};

const dangers: Readonly<Record<DangerLevel, string>> = {
  faint: "Below 60 V: not felt by dry hands; it marks pins, and welds a ring",
  startling: "Startles: the jerk hurts more than the shock",
  severe: "Can kill across the chest",
  deadly: "Can kill",
};

/** What a charge could do, and a plain comparison for its energy. */
export function dangerWords(storedJoules: number, volts: number): string {
  const metres = fallOfKilogramMetres(storedJoules);
  const fall = metres < 0.01 ? "under a centimetre" : formatLength(metres);
  return `${dangers[chargeDanger(storedJoules, volts)]}; the energy of a kilogram falling ${fall}`;
}

function formatLength(metres: number): string {
  return metres < 1 ? `${Math.round(metres * 100)}\u00a0cm` : `${Number(metres.toPrecision(2))}\u00a0m`;
}

/** The charge watch in words: what was measured and when, never that something is safe. */
export function chargeWords(state: ChargeState, stores: readonly EnergyStore[], nowMilliseconds: number): string {
  const name = stores.find((store) => store.id === state.storeId)?.name ?? "Charge";
  const volts = state.volts === null ? "" : formatQuantity(state.volts, "V").text;
  const at = state.at ? ` at ${logTime(state.at)}` : "";
  switch (state.name) {
    case "unknown":
      if (state.reason === "not_named") return `Charge unknown: ${listWords(state.designators)} not named yet`;
      return `${name} unknown: ${reasons[state.reason ?? "nothing_logged"]}`;
    case "charged":
      return `${name} charged, ${volts}${at}`;
    case "draining":
      return state.predictedVolts === null
        ? `${name} draining since ${at.slice(4)}`
        : `${name} draining, about ${formatQuantity(state.predictedVolts, "V", { significantDigits: 2 }).text} left if connected`;
    case "drained_once":
      return `${name} ${volts}, ${waitWords(state, nowMilliseconds)}`;
    case "verified":
      return `${name} measured ${volts}${at}${state.isDrainOn ? ", drain on" : ""}`;
  }
}

/** Why no ohmmeter belongs across a part now. */
export function ohmsRefusedWords({ lastVolts }: VoltsFirst, { workingVolts }: ChargeRules): string {
  if (lastVolts !== null && Math.abs(lastVolts) > workingVolts) {
    return `${formatQuantity(lastVolts, "V").text} on it: no ohms. Drain it in Make safe first, then read its volts.`;
  }
  return "Its charge is unknown: no ohms. Make safe first: its volts at its own pins, by a proved meter.";
}

/** What is missing after a first low reading. */
function waitWords(state: ChargeState, nowMilliseconds: number): string {
  const { waitsFor, waitUntilMilliseconds, creepVolts } = state;
  if (waitsFor === "other_side_of_fuse") return "on one side of the fuse: read the other side too";
  if (waitsFor === "creeps_back") {
    const end = formatQuantity(creepVolts ?? 0, "V", { significantDigits: 2 }).text;
    return `creeping back towards ${end}: drain again`;
  }
  const seconds = waitUntilMilliseconds === null ? 0 : Math.ceil((waitUntilMilliseconds - nowMilliseconds) / 1000);
  const what = waitsFor === "drain_removed" ? "drain off" : "drained once";
  return seconds > 0 ? `${what}: wait ${seconds}\u00a0s, read again` : `${what}: read again now`;
}

/** What the readings on a store say beyond the voltage, and what to do about it. */
export function drainClueWords(clue: DrainClue): string {
  const volts = formatQuantity(clue.volts, "V").text;
  switch (clue.code) {
    case "stays_full":
      return `Still ${volts} after a minute without a drain: the converter never started or latched off, and the bleeder is open or there is none.`;
    case "falls_too_slowly": {
      const predicted = formatQuantity(clue.predictedVolts ?? 0, "V", { significantDigits: 2 }).text;
      const implied =
        clue.impliedFarads === null
          ? "the drain path is not connected"
          : `either C is nearer ${formatQuantity(clue.impliedFarads, "F", { significantDigits: 2, largestPrefix: "u" }).text}, or the drain path is not connected well`;
      return `${volts} where ${predicted} was predicted: ${implied}.`;
    }
    case "zero_from_start":
      return "Zero from the start: never charged, shorted, open, or the meter is not measuring. Prove the meter on a known source and read again.";
    case "creeps_back":
      return `It crept back to ${volts}: drain again, verify again.`;
  }
}

/** Why a part is not to be used for draining this store. */
export function drainRefusalWords({ code, got, limit }: DrainRefusal): string {
  const number = (value: number, unit: "V" | "W" | "K") => formatQuantity(value, unit, { significantDigits: 2 }).text;
  switch (code) {
    case "volts_exceeded":
      return `${number(got, "V")} on a body that stands ${number(limit, "V")}`;
    case "pulse_power_exceeded":
      return `${number(got, "W")} at first where ${number(limit, "W")} is the most for one pulse`;
    case "filament_too_hot":
      return `the filament would pass ${number(limit, "K")}`;
    case "too_slow":
      return `${Math.round(got)}\u00a0s, and the house rule allows ${Math.round(limit)}\u00a0s`;
  }
}

const clueMeanings: Readonly<Record<DrainClueCode, string>> = {
  stays_full: "Look at start-up resistors, Vcc capacitor, control IC, an open shunt.",
  falls_too_slowly: "",
  zero_from_start: "If the meter is proved: fuse, thermistor, bridge, or the bulk itself, shorted or open.",
  creeps_back: "",
};

/** Where a clue of the drain points. */
export const clueMeaningWords = (code: DrainClueCode): string => clueMeanings[code];
