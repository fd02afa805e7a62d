import type { BoardNet } from "../board/board";
import type { LabelLimits } from "../proof/labelLimits";
import { type LoadFault, loadFault } from "../proof/loadPlan";

/** A run over the steps of load, or one load held for hours. */
export const runKinds = ["load_run", "burn_in"] as const;
export type RunKind = (typeof runKinds)[number];

/** One rail of a run: the load that hangs on it, and where it has to stay. Volts by their amount. */
export interface RunRail {
  readonly netId: string;
  readonly loadId: string;
  readonly lowVolts: number;
  readonly highVolts: number;
  readonly mostAmps: number;
  /** A current output is loaded by volts and never left open; null: by amperes, as its steps say. */
  readonly heldVolts: number | null;
}

/** A surface that a thermometer looks at all through the run. */
export interface RunSpot {
  readonly thermometerId: string;
  readonly targetKind: "part" | "rail" | "unit";
  readonly targetId: string;
  readonly mostCelsius: number;
}

export interface RunStep {
  /** Amperes by rail; a rail that is not named is not loaded. */
  readonly loads: readonly { readonly netId: string; readonly amps: number }[];
  readonly dwellSeconds: number;
}

/** What is to be run, with what, and where it ends by itself. Nothing of it changes once it began. */
export interface RunPlan {
  readonly kind: RunKind;
  readonly steps: readonly RunStep[];
  readonly sampleSeconds: number;
  readonly rails: readonly RunRail[];
  /** The source that switches the mains; null: a person does, and stays. */
  readonly mainsId: string | null;
  readonly mostInputWatts: number | null;
  readonly ripple: { readonly scopeId: string; readonly netId: string; readonly mostVolts: number | null } | null;
  readonly spots: readonly RunSpot[];
  readonly mostKelvinPerMinute: number;
}

export type RunPlanFault =
  | LoadFault
  | "no_rail"
  | "no_step"
  | "dwell_below_sample"
  | "instrument_twice"
  | "below_least_load"
  | "ripple_elsewhere"
  | "limits_crossed";

/** So many samples at least a step has to hold: fewer show no step. */
export const leastSamplesPerStep = 3;

/** Every instrument that a plan speaks to, as often as it is named. */
export function planInstruments(plan: RunPlan): readonly string[] {
  return [
    ...plan.rails.map((one) => one.loadId),
    ...plan.spots.map((one) => one.thermometerId),
    ...(plan.mainsId === null ? [] : [plan.mainsId]),
    ...(plan.ripple ? [plan.ripple.scopeId] : []),
  ];
}

/**
 * What is wrong with a plan before anything is switched; null: nothing. Each load of each step is held against promise and label;
 * an output that must not be open has its least load in each step, and stands on a load of its own.
 *
 * @param label of the type plate
 */
export function runPlanFault(
  plan: RunPlan,
  nets: readonly BoardNet[],
  label: LabelLimits,
  isOverloadMeant = false,
): { readonly code: RunPlanFault; readonly netId: string | null } | null {
  const fault = (code: RunPlanFault, netId: string | null = null) => ({ code, netId });
  if (plan.rails.length === 0) return fault("no_rail");
  if (plan.steps.length === 0) return fault("no_step");
  const used = planInstruments(plan);
  if (new Set(used).size < used.length) return fault("instrument_twice");
  const isRailOfRun = (netId: string) => plan.rails.some((one) => one.netId === netId);
  const twice = plan.rails.find((one, n) => plan.rails.findIndex((other) => other.netId === one.netId) !== n);
  if (twice) return fault("instrument_twice", twice.netId);
  const crossed = plan.rails.find((one) => !(one.lowVolts < one.highVolts));
  if (crossed) return fault("limits_crossed", crossed.netId);
  if (plan.ripple && !isRailOfRun(plan.ripple.netId)) return fault("ripple_elsewhere", plan.ripple.netId);
  for (const step of plan.steps) {
    if (!(step.dwellSeconds >= leastSamplesPerStep * plan.sampleSeconds)) return fault("dwell_below_sample");
    const stranger = step.loads.find((one) => !isRailOfRun(one.netId));
    if (stranger) return fault("not_a_rail", stranger.netId);
    const loads = new Map(step.loads.map((one) => [one.netId, one.amps]));
    const found = loadFault(nets, loads, label, isOverloadMeant);
    if (found) return found;
    const open = nets.find((net) => isRailOfRun(net.id) && (loads.get(net.id) ?? 0) < leastAmps(net) * (1 - 1e-9));
    if (open) return fault("below_least_load", open.id);
  }
  return null;
}

/** What an output must be loaded with at any time: a current output is never left open. */
export function leastAmps(net: BoardNet): number {
  const full = net.fullLoadAmps ?? 0;
  return net.isCurrentOutput ? full : Math.min(net.leastLoadAmps ?? 0, full);
}

/** Amperes of a rail in a step. */
export const ampsInStep = (step: RunStep | undefined, netId: string): number =>
  step?.loads.find((one) => one.netId === netId)?.amps ?? 0;

/** How long the whole plan dwells. */
export const runSeconds = (plan: Pick<RunPlan, "steps">): number =>
  plan.steps.reduce((sum, one) => sum + one.dwellSeconds, 0);
