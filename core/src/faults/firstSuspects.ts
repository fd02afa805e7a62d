import type { DeviceKind } from "../facts/deviceKinds";
import { symptomCodes } from "./symptoms";

/** Stages of a supply in the order in which energy flows, as far as a first suspicion needs them. */
export const stages = [
  "input",
  "bridge",
  "pfc",
  "bulk",
  "primary-switch",
  "control-supply",
  "standby",
  "output-rectifier",
  "output-capacitors",
  "feedback",
  "load",
] as const;
export type Stage = (typeof stages)[number];

/** One line of practice: a symptom, the stages it points to with a weight, and why. */
interface Pointer {
  readonly symptom: string;
  readonly weights: Readonly<Partial<Record<Stage, number>>>;
  readonly reason: string;
}

/** Bench experience in numbers from 1 (worth a look) to 4 (look here first); rough, and only a first order of looking. */
const pointers: readonly Pointer[] = [
  pointer("dead", "nothing lights", { input: 3, "control-supply": 3, "primary-switch": 2, bridge: 2, standby: 2 }),
  pointer("indicator_steady", "standby runs, the main converter does not", {
    "control-supply": 3,
    standby: 2,
    load: 2,
  }),
  pointer("indicator_pulses", "it tries and gives up", {
    "output-rectifier": 3,
    "output-capacitors": 3,
    "control-supply": 3,
    load: 2,
  }),
  pointer("backlight_drops_out", "a protection trips within seconds", { "output-capacitors": 4, load: 3 }),
  pointer("no_picture", "rails may be present and rippled", { "output-capacitors": 3, load: 3 }),
  pointer("ticking", "hiccup: overload or a weak control supply", {
    "output-rectifier": 3,
    "output-capacitors": 3,
    "control-supply": 3,
  }),
  pointer("whine", "bursts or a dried capacitor", { "output-capacitors": 3, "control-supply": 2, bulk: 1 }),
  pointer("hum", "the mains comes through", { bulk: 4, bridge: 1 }),
  pointer("bang", "something burst", { "primary-switch": 3, bulk: 3, pfc: 2, input: 2 }),
  pointer("smell", "electrolyte or resin", { "output-capacitors": 2, bulk: 2, "primary-switch": 2 }),
  pointer("fuse_blown", "a short on the primary", { "primary-switch": 4, bridge: 3, pfc: 3, bulk: 2 }),
  pointer("breaker_tripped", "a short on the primary", { "primary-switch": 4, bridge: 3, pfc: 3, bulk: 2 }),
  pointer("residual_current_tripped", "a leak to earth: filter, varistor, moisture", { input: 4 }),
  pointer("collapses_under_load", "no reserve", { "output-capacitors": 4, bulk: 3, feedback: 1 }),
  pointer("voltage_low", "peak charging without capacitance, or regulation", { "output-capacitors": 3, feedback: 2 }),
  pointer("voltage_high", "regulation lost: do not connect the load", { feedback: 4, "control-supply": 2 }),
  pointer("ripple_mains", "twice the mains on the rail", { bulk: 4, bridge: 1 }),
  pointer("ripple_mains_single", "asymmetry: an open bridge diode or a lost half of a doubler", { bridge: 4, bulk: 2 }),
  pointer("ripple_switching", "the switching frequency on the rail", { "output-capacitors": 4 }),
  pointer("cold_start_fails", "electrolyte nearly dry: ESR far higher cold", {
    "control-supply": 4,
    "output-capacitors": 3,
    standby: 3,
  }),
  pointer("repeated_attempts", "progressive drying", { standby: 3, "control-supply": 3, "output-capacitors": 3 }),
  pointer("fails_when_warm", "a joint or a semiconductor opens warm", {
    "primary-switch": 2,
    feedback: 2,
    "output-rectifier": 2,
  }),
  pointer("fails_under_load", "no reserve", { "output-capacitors": 3, bulk: 2 }),
  pointer("drops_after_seconds", "a protection trips", { "output-capacitors": 3, load: 2, "control-supply": 2 }),
  pointer("drops_after_minutes", "heat", { "output-capacitors": 2, "primary-switch": 2 }),
  pointer("worse_over_months", "drying, not breaking", { "output-capacitors": 3, standby: 3, "control-supply": 3 }),
  pointer("hot_capacitor", "high ESR or leakage in that part, or it sits by a heat source", {
    "output-capacitors": 3,
    bulk: 2,
    standby: 1,
  }),
  pointer("overheats", "a fan that stands, shut vents, or losses that grew", {
    load: 2,
    "output-capacitors": 2,
    "primary-switch": 1,
  }),
  pointer("fan_noise_or_stops", "its bearing, and then all that it cooled", { load: 3, "output-capacitors": 1 }),
  pointer("dim_or_flickers", "a rail that sags or ripples, or the lamps themselves", {
    "output-capacitors": 3,
    load: 3,
    bulk: 1,
  }),
  pointer("resets", "ripple on the low-voltage rail", { "output-capacitors": 4, standby: 2, load: 1 }),
  pointer("same_in_others", "design heat, a marginal part, standby duty", { standby: 3, "output-capacitors": 2 }),
  pointer("blink_code", "a protection counts what it saw", { "output-rectifier": 2, "output-capacitors": 2, load: 3 }),
  pointer("no_charging", "lead, plug or its third wire", { load: 4, "output-capacitors": 1 }),
  pointer("smell_fish", "electrolyte", { "output-capacitors": 3, bulk: 2, standby: 1 }),
  pointer("relay_clicks", "it tries to start, or its standby sags", { standby: 3, pfc: 2, "output-capacitors": 1 }),
  pointer("tingle", "the way to earth first: earth, Y capacitors, moisture", { input: 4 }),
  pointer("one_mains_only", "range switch, doubler, one half of the bulk", { input: 2, bridge: 2, bulk: 3 }),
  pointer("radio_noise", "the filter at the mains", { input: 3, pfc: 1 }),
  pointer("after_storm", "a surge comes in by the mains", { input: 4, bridge: 3, pfc: 2, "primary-switch": 1 }),
  pointer("after_liquid", "leaks and corrosion around small parts", { "control-supply": 2, feedback: 2, input: 1 }),
  pointer("after_drop", "heavy parts tear at their joints", { input: 2, "primary-switch": 1, load: 1 }),
  pointer("stored_for_years", "capacitors leak until they are formed again", { bulk: 2, "output-capacitors": 1 }),
  pointer("intermittent", "a cracked joint, a connector", { input: 2, "primary-switch": 1, load: 2 }),
];

function pointer(symptom: string, reason: string, weights: Pointer["weights"]): Pointer {
  return { symptom, reason, weights };
}

/** Stages that a kind of device usually does not have. */
const absentStages: Readonly<Partial<Record<DeviceKind, readonly Stage[]>>> = {
  adapter: ["pfc", "standby"],
  monitor: ["pfc"],
  instrument: ["pfc", "standby"],
  "small-appliance": ["pfc", "standby"],
};

export interface Suspect {
  readonly stage: Stage;
  readonly score: number;
  /** Symptoms that point here, each with its reason. */
  readonly because: readonly { readonly symptom: string; readonly reason: string }[];
}

/** A check that can be made before any repair; cold ones come before live ones, cheap before dear. */
export interface FirstCheck {
  readonly code: string;
  readonly stages: readonly Stage[];
  readonly minutes: number;
  readonly isLive: boolean;
}

export const firstChecks: readonly FirstCheck[] = [
  { code: "lead_and_fuse", stages: ["input"], minutes: 2, isLive: false },
  { code: "swap_or_bench_feed", stages: ["load"], minutes: 5, isLive: false },
  { code: "look_for_domes", stages: ["output-capacitors", "bulk", "standby", "pfc"], minutes: 3, isLive: false },
  { code: "shorts_on_primary", stages: ["primary-switch", "bridge", "pfc"], minutes: 4, isLive: false },
  { code: "esr_output", stages: ["output-capacitors"], minutes: 4, isLive: false },
  { code: "esr_control_supply", stages: ["control-supply", "standby"], minutes: 3, isLive: false },
  { code: "rectifier_diode_test", stages: ["output-rectifier"], minutes: 4, isLive: false },
  { code: "bulk_capacitance", stages: ["bulk"], minutes: 5, isLive: false },
  { code: "feedback_parts", stages: ["feedback"], minutes: 8, isLive: false },
  { code: "bulk_voltage", stages: ["bulk", "bridge", "input"], minutes: 5, isLive: true },
];

/**
 * First ranked list of stages for a set of symptoms and a kind of device: a sum of pointers, no probabilities, meant to
 * order the first looks before anything was measured. Stages that the kind does not have are left out.
 *
 * @returns highest score first; empty without symptoms
 */
export function firstSuspects(symptoms: readonly string[], kind: DeviceKind): readonly Suspect[] {
  const absent = absentStages[kind] ?? [];
  const found = stages.map((stage): Suspect => {
    const pointing = pointers.filter((one) => symptoms.includes(one.symptom) && one.weights[stage]);
    return {
      stage,
      score: pointing.reduce((sum, one) => sum + (one.weights[stage] ?? 0), 0),
      because: pointing.map(({ symptom, reason }) => ({ symptom, reason })),
    };
  });
  return found
    .filter((one) => one.score > 0 && !absent.includes(one.stage))
    .sort((a, b) => b.score - a.score || stages.indexOf(a.stage) - stages.indexOf(b.stage));
}

/** The first checks for a ranking: most suspicion per minute, cold before live. */
export function checksFor(suspects: readonly Suspect[], count = 3): readonly FirstCheck[] {
  const worth = (check: FirstCheck) =>
    suspects.filter((one) => check.stages.includes(one.stage)).reduce((sum, one) => sum + one.score, 0) / check.minutes;
  return firstChecks
    .filter((check) => worth(check) > 0)
    .sort((a, b) => Number(a.isLive) - Number(b.isLive) || worth(b) - worth(a))
    .slice(0, count);
}

/** Symptoms that point nowhere would be a hole in the table. */
export const pointedSymptoms: readonly string[] = symptomCodes.filter((code) =>
  pointers.some((one) => one.symptom === code),
);
