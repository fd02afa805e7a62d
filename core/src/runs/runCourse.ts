import { tradeConstants } from "../constants/tradeConstants";
import { median } from "../numerics/median";
import { type RunPlan, runSeconds } from "./runPlan";
import type { RunSample, RunStop } from "./watchRun";

const { leastTellingWatts } = tradeConstants.runs;

/** What happens to a run, in the order in which it was stored. */
export const runEventKinds = [
  "begun",
  "mains_on",
  "step_begun",
  "step_done",
  "paused",
  "continued",
  /** What a person wants of it: whichever process drives it heeds it. */
  "asked_to_pause",
  "asked_to_continue",
  "asked_to_cancel",
  "went_on_after_gap",
  "stopping",
  "mains_off",
  "mains_unconfirmed",
  "rails_empty",
  "rails_not_empty",
  "loads_off",
  "loads_unconfirmed",
  "ended",
] as const;
export type RunEventKind = (typeof runEventKinds)[number];

export interface RunEvent {
  readonly kind: RunEventKind;
  /** Since the run began. */
  readonly seconds: number;
  readonly step: number | null;
  readonly stop: RunStop | null;
}

/** `ending`: being switched off; `interrupted`: it lost its server or its instruments and was not finished. */
export type RunStateName = "running" | "paused" | "ending" | "done" | "cancelled" | "stopped" | "interrupted";

export interface RunState {
  readonly name: RunStateName;
  readonly step: number;
  /** Why it ended before its time. */
  readonly stop: RunStop | null;
  /** An instrument did not confirm that it is off: a person looks. */
  readonly isUnconfirmed: boolean;
}

const interruptions: readonly RunStop["code"][] = ["server_gone", "server_stopped"];

/** How a run stands by what happened to it. */
export function runState(events: readonly RunEvent[]): RunState {
  let name: RunStateName = "running";
  let step = 0;
  let stop: RunStop | null = null;
  let isUnconfirmed = false;
  for (const event of events) {
    switch (event.kind) {
      case "step_begun":
        step = event.step ?? step;
        break;
      case "paused":
        name = "paused";
        break;
      case "continued":
        name = "running";
        break;
      case "stopping":
        name = "ending";
        stop = event.stop;
        break;
      case "mains_unconfirmed":
      case "loads_unconfirmed":
        isUnconfirmed = true;
        break;
      case "ended":
        name = endName(stop);
        break;
    }
  }
  return { name, step, stop, isUnconfirmed };
}

function endName(stop: RunStop | null): RunStateName {
  if (stop === null) return "done";
  if (stop.code === "cancelled") return "cancelled";
  return interruptions.includes(stop.code) ? "interrupted" : "stopped";
}

export const isRunOver = (name: RunStateName): boolean => name !== "running" && name !== "paused" && name !== "ending";

/** What is left of the plan's dwelling; pauses and the switching at the end come on top. */
export function secondsLeft(plan: RunPlan, step: number, stepSeconds: number): number {
  const after = runSeconds({ steps: plan.steps.slice(step + 1) });
  return after + Math.max((plan.steps[step]?.dwellSeconds ?? 0) - stepSeconds, 0);
}

/** How long it ran under load: steps that were left early count as far as they went. */
export function loadedSeconds(samples: readonly RunSample[]): number {
  const most = new Map<number, number>();
  for (const { step, stepSeconds, isPaused } of samples) {
    if (!isPaused) most.set(step, Math.max(most.get(step) ?? 0, stepSeconds));
  }
  return [...most.values()].reduce((sum, one) => sum + one, 0);
}

/** What a step has shown: medians over its second half, when it had settled. */
export interface StepFinding {
  readonly rails: readonly { readonly netId: string; readonly amps: number; readonly volts: number }[];
  readonly rippleVolts: number | null;
  readonly inputWatts: number | null;
  /** What comes out of what goes in; null where nobody reads the input, or next to nothing comes out. */
  readonly efficiencyRatio: number | null;
  readonly celsius: readonly (number | null)[];
  /** When the last of its samples was taken. */
  readonly seconds: number;
}

/**
 * What a step's samples come to. The first half is left out: it holds the step itself and what follows from it. null: too few to
 * tell.
 */
export function stepFinding(plan: RunPlan, step: number, samples: readonly RunSample[]): StepFinding | null {
  const own = samples.filter((one) => one.step === step && !one.isPaused);
  const settled = own.slice(Math.floor(own.length / 2));
  const last = settled.at(-1);
  if (!last) return null;
  const middle = (values: readonly (number | null)[]): number | null => {
    const numbers = values.flatMap((one) => (one === null ? [] : [one]));
    return numbers.length === 0 ? null : median(numbers);
  };
  const rails = plan.rails.flatMap(({ netId }) => {
    const read = settled.flatMap((one) => one.rails.filter((rail) => rail.netId === netId));
    const [volts, amps] = [middle(read.map((one) => one.volts)), middle(read.map((one) => one.amps))];
    return volts === null || amps === null ? [] : [{ netId, volts, amps }];
  });
  const inputWatts = middle(settled.map((one) => one.inputWatts));
  const given = rails.reduce((sum, one) => sum + Math.abs(one.volts) * one.amps, 0);
  const isTelling = inputWatts !== null && inputWatts > 0 && given >= leastTellingWatts;
  return {
    rails,
    efficiencyRatio: isTelling ? given / inputWatts : null,
    inputWatts,
    rippleVolts: middle(settled.map((one) => one.rippleVolts)),
    // Still rising: what was read last stands.
    celsius: plan.spots.map((_, n) => last.celsius[n] ?? null),
    seconds: last.seconds,
  };
}
