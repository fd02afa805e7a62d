import {
  type Falsifier,
  falsifiedBy,
  formatQuantity,
  type GateCause,
  type GateItem,
  type GateReason,
  type GateValue,
  gateItemRules,
  type PowerEvent,
  type PowerGate,
  type PowerSign,
  type QuantityKind,
  type Rig,
  type Shutter,
} from "@pale-cap/core";
import { listWords } from "./boardWords";

/** What lamp, limiter or rail does at first power, and what that means. */
export const firstPowerSigns: Readonly<Record<PowerSign, readonly [sign: string, meaning: string]>> = {
  flash_then_dim: [
    "flash, then dim or dark",
    "the bulk charged and little is drawn (with PFC it flashes twice, a relay clicks): go on, with care",
  ],
  dark: ["dark from the start", "nothing is drawn: inlet, fuse, thermistor, bridge"],
  bright: ["bright and steady", "a short or a heavy overload: switch off, drain, test for shorts"],
  pulsing: ["pulsing", "it starts and gives up: control supply, a shorted output, or the lamp is too small"],
  bright_dim_bright: ["bright, dim, bright again", "it starts into a short or an overload on an output: switch off"],
  dim_growing: ["dim, and growing", "something runs away with heat: switch off"],
  straight_runs: ["no lamp, it runs", "read every rail now"],
  straight_trips: ["no lamp, fuse or breaker went", "log what tripped: the short tests come first again"],
};

/** What a rig falsifies; kept with every reading that is taken through it. */
export const rigNotes = {
  seriesLamp:
    "Readings through a lamp are kept but prove nothing: regulation, start-up timing and ripple under load are read again without it. A lamp limits and does not isolate.",
  electronicLimiter:
    "Readings through a limiter are kept but prove nothing: it folds back where the supply would not. It limits and does not isolate.",
  isolationTransformer:
    "Behind a transformer the residual-current device protects no more, and timing can be wrong by a factor of three. Rated for twice the unit it lets regulation and ripple stand. It isolates; it does not limit current.",
} as const;

/** The residual-current device upstream, as it stands with this rig. */
export function residualCurrentWords(rig: Rig): string {
  return rig.isIsolationTransformer
    ? "Residual-current device: ineffective behind the transformer."
    : "Residual-current device: in the path; test its button before you rely on it.";
}

const gateCauses: Readonly<Record<GateCause, string>> = {
  fuse_told: "A blown fuse was told at intake",
  breaker_told: "A tripped breaker was told at intake",
  bang_told: "A bang was told at intake",
  residual_current_told: "A tripped residual-current device was told at intake",
  tingle_told: "A tingle was told at intake: current found its way to earth through a hand",
  fuse_blown: "A fuse blew",
  breaker_tripped: "The circuit breaker tripped",
  residual_current_tripped: "The residual-current device tripped",
  short_found: "A short was found",
};

/** Why no power-up is offered, or what opened the way again. */
export function powerGateWords(gate: PowerGate): string {
  if (gate.cause === null) return "";
  const cause = gateCauses[gate.cause];
  const open = gate.demands.filter((one) => one.state !== "passed").length;
  if (gate.isShut) return `${cause}: ${open} of ${gate.demands.length} tests are open, no power-up is offered.`;
  if (gate.overruledBy) return `${cause}; overruled: ${gate.overruledBy.note ?? ""}`;
  return `${cause}; tested since, no short found.`;
}

/** What is tested where no part is named, between which points, and what to mind. */
const gateItemTexts: Readonly<Record<GateItem, readonly [noun: string, points: string, hint: string]>> = {
  line_neutral: ["L to N", "behind the fuse", "wait until the X capacitor stands"],
  bridge: ["Bridge", "+ to −, diode test", "black on +, then the other way"],
  bulk: ["Bulk", "+ to −", "rises while it charges: wait"],
  transistor: ["Power transistor", "drain to source, or C to E", "rises while a neighbour charges"],
  shunt: ["Shunt", "through it", "open when the transistor took it along"],
  single_diode: ["Bridge diodes", "one by one, the lowest", "forward, then backward"],
  gate_source: ["Power transistor", "gate to source", "its driver goes with it"],
  earth_insulation: ["L and N together", "to earth", "insulation test at 250 or 500 V, then discharge"],
  rail: ["Rail", "to its ground", "not shorted by what was fitted"],
  sink: ["Power part", "tab to the heat sink", "washer, pad and screw"],
  earth_bond: ["Protective earth", "plug pin to the closed case", "200 mA or more; flex the cord"],
};

/** A test by its part: "Q1 drain to source". */
export const gateItemWords = (item: GateItem, designator: string | null): string =>
  `${designator || gateItemTexts[item][0]} ${gateItemTexts[item][1]}`;
export const gateItemHint = (item: GateItem): string => gateItemTexts[item][2];

/** Why a tick does not stand beside its number. */
export const contradictionWords = (item: GateItem, said: string): string =>
  item === "earth_bond" ? `${said} is no protective earth.` : `${said} is a short: it is not ticked as sound.`;

export const gateReasonLabels: Readonly<Record<GateReason, string>> = {
  not_there: "this unit has none",
  isolated_part: "fully isolated part",
  tested_out: "tested out of circuit",
  no_access: "cannot be reached",
};

/** A number as it was read. */
export const gateValueWords = (item: GateItem, value: GateValue): string =>
  value === "open" ? "open" : formatQuantity(value, gateItemRules[item].quantity === "resistance" ? "Ω" : "V").text;

/** What was read on an item, or why nothing was. */
export function gateCheckWords(
  item: GateItem,
  { values, reason, note }: Pick<PowerEvent, "values" | "reason" | "note">,
): string {
  const read = values.map((value) => gateValueWords(item, value)).join(", ");
  return [read, reason ? gateReasonLabels[reason] : "", note ?? ""].filter(Boolean).join(", ");
}

/** What stands against the mains, one sentence each. */
export function shutterWords({ code, subjects }: Shutter): string {
  const names = listWords(subjects);
  switch (code) {
    case "part_out":
      return `${names} ${subjects.length > 1 ? "are" : "is"} out and nothing is in.`;
    case "bad_power_part_in":
      return `${names} ${subjects.length > 1 ? "read" : "reads"} bad and ${subjects.length > 1 ? "are" : "is"} still in.`;
    case "polarity_unseen":
      return `Polarity of ${names} not confirmed from both records.`;
    case "polarity_conflict":
      return `${names}: stripe and board mark do not agree.`;
    case "drain_on":
      return `A drain still hangs on ${names}.`;
    case "check_missing":
      return `Cold checks are missing: ${listWords(subjects.map(itemWords))}.`;
    case "sheet_or_earth_out":
      return `${listWords(subjects.map(stepWords))} out.`;
  }
}

function itemWords(subject: string): string {
  const [item = "", name = ""] = subject.split(":");
  return gateItemWords(item as GateItem, name || null);
}

function stepWords(subject: string): string {
  const [kind = "", count = ""] = subject.split(":");
  const name = kind === "sheet" ? "insulating sheet" : "earth screw";
  return `${count} ${name}${count === "1" ? "" : "s"}`;
}

/** Why a reading proves nothing. */
export const falsifierWords: Readonly<Record<Falsifier, string>> = {
  series_lamp: "through the series lamp",
  electronic_limiter: "through the limiter",
  isolation_transformer: "behind the isolation transformer",
};

/** Short, for the probe bar: what the next reading is falsified by, if it is. */
export function rigWords(rig: Rig, quantity: QuantityKind, isOnMainsSide: boolean): string {
  const by = falsifiedBy({ quantity, rig, isPowered: true }, isOnMainsSide);
  return by ? `Taken ${falsifierWords[by]}: kept, but proves nothing.` : "";
}
