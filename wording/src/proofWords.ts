import type {
  EarthAndInsulation,
  LoadFault,
  LoadLine,
  OutputDroop,
  ProofReason,
  ProofStepCode,
  ProofStepState,
  SettleFlag,
  ThermalSettle,
  Timing,
  TimingName,
} from "@pale-cap/core";
import { formatQuantity } from "@pale-cap/core";
import { falsifierWords } from "./firstPowerWords";

export const proofStepLabels: Readonly<Record<ProofStepCode, string>> = {
  cold_checks: "Cold: each rail's ohms",
  first_power: "First power, limited",
  over_voltage: "Volts before the host",
  unloaded: "Unloaded",
  loaded: "Loaded to the promise",
  ripple: "Ripple",
  hold_up: "Hold-up",
  heat: "Heat",
  burn_in: "Burn-in",
  cold_starts: "Starts as when it failed",
  in_device: "In its device",
  earth_insulation: "Earth bond, insulation",
};

export const proofReasonWords: Readonly<Record<ProofReason, string>> = {
  parts_changed: "parts were changed",
  promised: "it was promised",
  control_or_feedback_work: "control or feedback was worked on: an output may run away",
  bulk_work: "the bulk was worked on",
  fails_with_heat: "it failed with heat or cold",
  comes_and_goes: "the fault comes and goes",
  complaint: "the complaint itself is tried again",
  mains_side_work: "the mains side was worked on",
};

/** What each step is held against, and where that comes from. */
export const proofLimitWords: Readonly<Record<ProofStepCode, string>> = {
  cold_checks: "ohms that rise, well above the load's own (usual)",
  first_power: "no rail above 110 % at any time (usual)",
  over_voltage: "5 V up to 5.5 V, 3.3 V up to 3.6 V, others 110 % (what logic bears)",
  unloaded: "each rail's own tolerance, else the house's",
  loaded: "each rail's own tolerance, else the house's",
  ripple: "each rail's own limit, else the house's share",
  hold_up: "10 ms at full load (usual)",
  heat: "a can 20 K below its class, sinks 90 °C, windings 110 °C (usual, at 35 °C around it)",
  burn_in: "two hours, four to eight where heat or time brings it (bench practice)",
  cold_starts: "as many as leave a chance of one in twenty to miss it",
  in_device: "the complaint, as the customer told it",
  earth_insulation: "the house's limits; local rules come first",
};

export const proofStateLabels: Readonly<Record<ProofStepState, string>> = {
  done: "done",
  failed: "not within",
  open: "open",
  blocked: "host refused",
  not_done: "not done",
};

const milliohms = (ohms: number) => `${Number((ohms * 1e3).toPrecision(3))} mΩ`;

/** Droop in volts, per cent and milliohms; what the meter cannot tell is said. */
export function droopWords(droop: OutputDroop, nominalVolts: number, isLeadOff: boolean): string {
  const volts = formatQuantity(Math.abs(droop.regulationRatio * nominalVolts), "V").text;
  const percent = `${Number((droop.regulationRatio * 100).toPrecision(2))} %`;
  const lead = isLeadOff ? ", the lead taken off" : "";
  if (droop.isNegative) return `It rises with the load, by ${volts}: at the end of a lead, or a sense line?`;
  if (!droop.isTelling) return "Too little between light and full load for this meter to tell a droop.";
  return `Droops ${volts}, ${percent}, ${milliohms(droop.outputOhms)} ± ${milliohms(2 * droop.deviationOhms)}${lead}.`;
}

/** What is wrong with a load that was put on a rail. */
export function loadFaultWords(code: LoadFault, amps: number, promisedAmps: number): string {
  const load = formatQuantity(amps, "A").text;
  switch (code) {
    case "above_promise":
      return `${load} is more than the ${formatQuantity(promisedAmps, "A").text} that were promised: an overload, and no proof of the promise.`;
    case "above_label":
      return `${load} is more than the label's watts allow.`;
    case "above_combined":
      return `${load}, with what the label counts together with it, is more than that allows.`;
    case "below_zero":
      return `${load} is no load.`;
    case "not_a_rail":
      return "Nothing was promised of this rail.";
  }
}

/** Where the limit sets in, if the line has a knee. */
export function kneeWords({ kneeLowAmps, kneeHighAmps }: LoadLine): string | null {
  if (kneeLowAmps === null || kneeHighAmps === null) return null;
  return `Its limit sets in between ${formatQuantity(kneeLowAmps, "A").text} and ${formatQuantity(kneeHighAmps, "A").text}.`;
}

const flagWords: Readonly<Record<SettleFlag, string>> = {
  flat: "it does not warm",
  short_span: "watched for too short a time",
  tau_at_edge: "no bend yet",
  wide: "the readings scatter",
};

/** Where a place will settle, with its error; what is not trusted says why. */
export function settleWords(settle: ThermalSettle): string {
  const { settledNowCelsius, deviationKelvin, remainingKelvin, nearInSeconds, timeConstantSeconds, flags } = settle;
  if (flags.includes("flat")) return `Stands at ${settledNowCelsius.toFixed(1)} °C: it does not warm.`;
  const minutes = (seconds: number) => `${Math.max(1, Math.round(seconds / 60))} min`;
  const base = `Settles at ${settledNowCelsius.toFixed(0)} ± ${Math.max(1, Math.round(2 * deviationKelvin))} °C, ${remainingKelvin.toFixed(0)} K to go`;
  const time = timeConstantSeconds === null ? "" : `, time constant ${minutes(timeConstantSeconds)}`;
  const near = nearInSeconds > 0 ? `, within 1 K in ${minutes(nearInSeconds)}` : "";
  const doubt = flags.length === 0 ? "" : `. Not to be relied on: ${flags.map((one) => flagWords[one]).join(", ")}`;
  return `${base}${time}${near}${doubt}.`;
}

/** What a number of starts shows. */
export function startsWords(
  starts: { readonly good: number; readonly failed: number; readonly shown: { readonly upperRatio: number } | null },
  wanted: number,
): string {
  const { good, failed, shown } = starts;
  const upper = shown ? `; with 95 % confidence fewer than ${Math.round(100 * shown.upperRatio)} % of starts fail` : "";
  if (failed > 0) return `${failed} of ${good + failed} starts failed since the last work: it is still there.`;
  const more = wanted - good;
  if (more > 0) return `${good} good, ${more} more wanted${upper}.`;
  return `${good} good starts, as many as were wanted${upper}.`;
}

const earthWords = {
  pass: "within its limit",
  fail: "above its limit",
  unclear: "too near its limit to tell",
  missing: "not read",
} as const;
const insulationStates = {
  pass: "within its limit",
  fail: "below its limit",
  unclear: "too near its limit to tell",
  missing: "not read",
} as const;

/** What was read of earth and insulation, and what was not. */
export function insulationWords(found: EarthAndInsulation): string {
  const earth = found.earth === null ? "" : `Earth bond ${earthWords[found.earth]}. `;
  const leak = found.leakAmps === null ? "" : `, ${formatQuantity(found.leakAmps, "A").text} at the test's volts`;
  return `${earth}Insulation ${insulationStates[found.insulation]}${leak}.`;
}

export const timingLabels: Readonly<Record<TimingName, string>> = {
  rails_up: "mains to rails up",
  power_good: "power good after the rails",
  standby_up: "mains to standby up",
  off_to_down: "rails stand after off",
  vcc_up: "mains to Vcc up, probe on the primary",
};

/** A time against the most it may be, or why it says nothing. */
export function timingWords({ name, seconds, mostSeconds, state, by }: Timing): string {
  const said = `${timingLabels[name]}: ${formatQuantity(seconds, "s").text}`;
  switch (state) {
    case "repeat":
      return `${said}, ${by ? falsifierWords[by] : "through something"}: read it again without.`;
    case "no_limit":
      return `${said}; nobody said how long it may take.`;
    default: {
      const limit = formatQuantity(mostSeconds ?? 0, "s").text;
      return state === "within" ? `${said}, within ${limit}.` : `${said}, longer than ${limit}.`;
    }
  }
}

/** Volts that are another rail's: the probe was there, or the name is. */
export const likelyRailWords = (meant: string, found: string): string =>
  `${meant} read like ${found}: was the probe there, or is one of them named wrong?`;

/** A dip after a step of load, beside what the rail's capacitors bound it to. */
export function stepWords(dipVolts: number, boundVolts: number | null, recoverySeconds: number): string {
  const dip = formatQuantity(dipVolts, "V").text;
  const back = recoverySeconds > 0 ? `, back after ${formatQuantity(recoverySeconds, "s").text}` : "";
  if (boundVolts === null) return `Dips ${dip}${back}.`;
  const bound = formatQuantity(boundVolts, "V").text;
  return dipVolts <= boundVolts
    ? `Dips ${dip}${back}; its capacitors bound it to ${bound}, with a loop of 3 kHz assumed.`
    : `Dips ${dip}${back}, more than the ${bound} that its capacitors explain with a loop of 3 kHz: lead, choke or loop?`;
}
