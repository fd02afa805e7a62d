import type { RunEventKind, RunKind, RunPlanFault, RunState, RunStateName, RunStop, StopCode } from "@pale-cap/core";
import { formatQuantity, type Unit } from "@pale-cap/core";

export const runKindLabels: Readonly<Record<RunKind, string>> = { load_run: "Load run", burn_in: "Burn-in" };

export const runStateLabels: Readonly<Record<RunStateName, string>> = {
  running: "running",
  paused: "paused",
  ending: "being switched off",
  done: "through",
  cancelled: "cancelled",
  stopped: "cut off",
  interrupted: "interrupted",
};

/** What is wrong with a plan, before anything is switched. */
export function runPlanFaultWords(code: RunPlanFault, rail: string | null): string {
  const name = rail ?? "a rail";
  switch (code) {
    case "no_rail":
      return "No rail has a load: name one that was promised, and the load that hangs on it.";
    case "no_step":
      return "There is no step to run.";
    case "dwell_below_sample":
      return "A step is shorter than three of its samples: it would show nothing.";
    case "instrument_twice":
      return "One instrument cannot be at two places: each rail needs a load of its own.";
    case "below_least_load":
      return `${name} must never be open: each step needs its least load.`;
    case "ripple_elsewhere":
      return "The scope reads a rail that is not in the run.";
    case "limits_crossed":
      return `The limits of ${name} leave nothing between them.`;
    case "above_promise":
      return `${name} would be loaded with more than was promised of it.`;
    case "above_label":
      return "All loads together are more than the label's watts.";
    case "above_combined":
      return "Some loads together are more than the label allows of those rails.";
    case "below_zero":
      return `A load below nought on ${name} is no load.`;
    case "not_a_rail":
      return `${name} has no promise to be held against, or is none of the outputs.`;
  }
}

const stopUnits: Readonly<Partial<Record<StopCode, Unit>>> = {
  over_voltage: "V",
  under_voltage: "V",
  over_current: "A",
  over_power: "W",
  over_ripple: "V",
  over_temperature: "°C",
  load_lies: "A",
  watts_contradict: "W",
};

/**
 * Why a run ended before its time, with the numbers.
 *
 * @param subject rail, part or instrument
 */
export function stopWords({ code, value, limit }: RunStop, subject: string | null): string {
  const name = subject ?? "the unit";
  const unit = stopUnits[code];
  const said = (one: number | null) => (one === null ? "?" : unit ? formatQuantity(one, unit).text : one.toFixed(1));
  switch (code) {
    case "over_voltage":
      return `${name} rose to ${said(value)}, above ${said(limit)}.`;
    case "under_voltage":
      return `${name} fell to ${said(value)}, below ${said(limit)}.`;
    case "over_current":
      return `${name} gave ${said(value)}, more than ${said(limit)}.`;
    case "over_power":
      return `${said(value)} were drawn, more than ${said(limit)}.`;
    case "over_ripple":
      return `Ripple of ${name}: ${said(value)}, above ${said(limit)}.`;
    case "over_temperature":
      return `${name} reached ${said(value)}, above ${said(limit)}.`;
    case "heat_too_fast":
      return `${name} warmed by ${said(value)} K a minute, faster than ${said(limit)}.`;
    case "load_lies":
      return `The load on ${name} says ${said(value)} where ${said(limit)} are set: it is not believed.`;
    case "watts_contradict":
      return `${said(value)} in and ${said(limit)} out: one of the meters is wrong.`;
    case "no_probe":
      return `Nothing was read of ${name}: its probe came off.`;
    case "instrument_lost":
      return `${subject ?? "An instrument"} did not answer any more.`;
    case "instrument_garbled":
      return `${subject ?? "An instrument"} answered what cannot be.`;
    case "mains_gone":
      return "The mains source says that it is off.";
    case "load_gone":
      return `The load on ${name} says that it is off.`;
    case "cancelled":
      return "It was cancelled.";
    case "server_gone":
      return "The server was gone, and what it found afterwards did not let the run go on.";
    case "server_stopped":
      return "The server was stopped.";
    case "not_stored":
      return "What was read could not be stored any more.";
  }
}

export const runEventWords: Readonly<Record<RunEventKind, string>> = {
  begun: "begun",
  mains_on: "mains on",
  step_begun: "loads set",
  step_done: "step done",
  paused: "paused",
  continued: "continued",
  asked_to_pause: "asked to pause",
  asked_to_continue: "asked to continue",
  asked_to_cancel: "asked to stop",
  went_on_after_gap: "went on after the server was gone",
  stopping: "ending",
  mains_off: "mains off",
  mains_unconfirmed: "mains NOT confirmed off",
  rails_empty: "rails empty",
  rails_not_empty: "rails not seen empty",
  loads_off: "loads off",
  loads_unconfirmed: "loads NOT confirmed off",
  ended: "ended",
};

/** What a person has to do where an instrument did not confirm. */
export function unconfirmedWords(state: Pick<RunState, "isUnconfirmed">, canSwitchMains: boolean): string | null {
  if (!state.isUnconfirmed) return null;
  return canSwitchMains
    ? "Not everything confirmed that it is off: switch the mains off by hand, then look at the loads."
    : "Switch the mains off by hand now: no instrument of the run does it.";
}

/** Minutes and seconds left, for a glance. */
export function leftWords(seconds: number): string {
  if (seconds >= 5400) return `${Math.floor(seconds / 3600)} h ${Math.round((seconds % 3600) / 60)} min left`;
  if (seconds >= 90) return `${Math.round(seconds / 60)} min left`;
  return `${Math.ceil(seconds)} s left`;
}
