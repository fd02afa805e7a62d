import type {
  Assumption,
  BulkEffect,
  CaptureProblem,
  FilterState,
  ImpossibleConverterError,
  OutputConverter,
  RippleCause,
} from "@pale-cap/core";
import { formatQuantity, type Unit } from "@pale-cap/core";

export const filterStateLabels: Readonly<Record<FilterState, string>> = {
  healthy: "as new",
  measured: "as read",
  replaced: "after replacement",
};

export const converterLabels: Readonly<Record<OutputConverter, string>> = {
  flyback_discontinuous: "flyback, discontinuous",
  flyback_continuous: "flyback, continuous",
  flyback_quasi_resonant: "flyback, quasi-resonant",
  forward: "forward, choke at the output",
  half_bridge: "half bridge, choke at the output",
  push_pull: "push-pull, choke at the output",
  resonant: "resonant, no choke",
  buck: "buck",
  boost: "boost, as for backlights",
  linear: "linear regulator",
};

/** What the share of the period means for each kind; null where a kind has none that matters. */
export const dutyLabels: Readonly<Record<OutputConverter, string | null>> = {
  flyback_discontinuous: "Fall of the secondary current, share",
  flyback_continuous: "Duty of the switch",
  flyback_quasi_resonant: "Fall of the secondary current, share",
  forward: "Duty at the choke",
  half_bridge: "Duty at the choke",
  push_pull: "Duty at the choke",
  resonant: null,
  buck: "Duty of the switch",
  boost: "Duty of the switch",
  linear: null,
};

const assumed: Readonly<Record<Assumption["key"], readonly [string, Unit]>> = {
  switchingHertz: ["switching frequency", "Hz"],
  dutyRatio: ["share of the period", ""],
  rippleRatio: ["swing over mean", ""],
  riseSeconds: ["edges", "s"],
  loadAmps: ["load", "A"],
};

/** One assumption with its value and its range. */
export function assumptionWords({ key, value, low, high }: Assumption): string {
  const [name, unit] = assumed[key];
  const show = (one: number) => formatQuantity(one, unit, { significantDigits: 2 }).text;
  return `${name} ${show(value)}, usually ${show(low)} to ${show(high)}`;
}

/** What is assumed around a bulk, with its range. */
export function bulkEffectWords({ key, low, high }: BulkEffect): string {
  return key === "sourceOhms"
    ? `${low} to ${high} Ω in series with the mains`
    : `an efficiency of ${Math.round(low * 100)} to ${Math.round(high * 100)} %`;
}

export function impossibleWords({
  impossible,
  numbers,
}: Pick<ImpossibleConverterError, "impossible" | "numbers">): string {
  switch (impossible) {
    case "output_above_input":
      return numbers.inputVolts === undefined
        ? `A duty of ${((numbers.dutyRatio ?? 0) * 100).toFixed(0)} % is more than this kind can have.`
        : `${numbers.railVolts} V cannot come out of a step-down converter fed with ${numbers.inputVolts} V.`;
    case "no_time_left":
      return "The period has no room for this: lower the share, or the frequency.";
    case "negative_current":
      return "A current below zero: the load draws, it does not feed.";
    case "swing_above_mean":
      return "The swing is more than twice the mean: then it is discontinuous.";
    case "input_above_output":
      return `A boost lifts: ${numbers.railVolts} V cannot come out of one that is fed with ${numbers.inputVolts} V.`;
    case "switches_nothing":
      return "A linear regulator switches nothing: its ripple is that of the rail it is fed from, less what it takes away.";
    case "no_load":
      return "Without load there is no switching ripple to reckon with.";
    case "edges_too_slow":
      return "The edges fill the time in which current flows.";
  }
}

export const causeWords: Readonly<Record<RippleCause, readonly [name: string, meaning: string]>> = {
  bulk: ["twice the mains", "the bulk capacitor: dried, or too small for the load"],
  asymmetry: ["the mains itself", "an asymmetry: an open bridge diode, or a lost half of a doubler"],
  output_capacitors: ["switching", "the output capacitors before or after the choke"],
  control_or_light_load: ["comes and goes", "bursts: the control supply, or a light load"],
  spikes: ["spikes", "edges, and often the probe: a long ground lead picks them up"],
  drift: ["drift", "slower than the window: warming up, or regulation"],
};

export function captureProblemWords({ code, row, text }: CaptureProblem): string {
  const at = row === null ? "" : ` in row ${row}`;
  switch (code) {
    case "no_table":
      return "No table of numbers was found in this file. Nothing was stored.";
    case "not_a_number":
      return `“${text}”${at} is no number. Nothing was stored.`;
    case "truncated":
      return `The file breaks off${at}: cells are missing. Nothing was stored.`;
    case "time_runs_back":
      return `Time does not go on${at} (“${text}”). Nothing was stored.`;
    case "time_uneven":
      return "The samples are not evenly spaced in time. Nothing was stored.";
    case "no_interval":
      return "The time between two samples is not known, or zero. Nothing was stored.";
    case "too_short":
      return `Only ${text} sample${text === "1" ? "" : "s"}: too few to say anything. Nothing was stored.`;
    case "too_long":
      return "More than five million samples: cut the capture. Nothing was stored.";
    case "implausible_volts":
      return `“${text}”${at} would be thousands of volts: is the unit right? Nothing was stored.`;
  }
}
