import { tradeConstants } from "../constants/tradeConstants";
import { ampsInStep, type RunPlan } from "./runPlan";

const limits = tradeConstants.runs;

/** What the instruments said at one moment; null where one has nothing to say. */
export interface RunSample {
  /** Since the run began, by the clock of the server that drives it. */
  readonly seconds: number;
  readonly step: number;
  /** Seconds of this step that counted, pauses left out. */
  readonly stepSeconds: number;
  /** Loads are drawn down to what the outputs need at least. */
  readonly isPaused: boolean;
  readonly rails: readonly {
    readonly netId: string;
    readonly volts: number;
    readonly amps: number;
    /** What its load was told to draw; 0: it is off. */
    readonly setAmps: number;
    readonly isOn: boolean;
  }[];
  /** As the source says itself; null where none switches it. */
  readonly isMainsOn: boolean | null;
  readonly inputWatts: number | null;
  readonly rippleVolts: number | null;
  /** In the order of the plan's spots. */
  readonly celsius: readonly (number | null)[];
}

export const stopCodes = [
  "over_voltage",
  "under_voltage",
  "over_current",
  "over_power",
  "over_ripple",
  "over_temperature",
  "heat_too_fast",
  "load_lies",
  "watts_contradict",
  "no_probe",
  "instrument_lost",
  "instrument_garbled",
  "mains_gone",
  "load_gone",
  "cancelled",
  "server_gone",
  "server_stopped",
  "not_stored",
] as const;
export type StopCode = (typeof stopCodes)[number];

/** Why a run ends before its time, with what was read and what it was held against. */
export interface RunStop {
  readonly code: StopCode;
  /** The rail or the spot's target. */
  readonly subjectId: string | null;
  readonly value: number | null;
  readonly limit: number | null;
}

export const stopBecause = (
  code: StopCode,
  subjectId: string | null = null,
  value: number | null = null,
  limit: number | null = null,
): RunStop => ({ code, subjectId, value, limit });

/**
 * Whether a run may go on after its last sample; null: it may.
 *
 * An instrument that switched itself off ends it. Too many volts, amperes, watts or degrees end it at the first sample. Too few volts, a ripple and a contradiction have to stand in
 * two samples in a row, once the step has settled: a step's own dip is no fault. A temperature that rises faster than the plan lets
 * it over half a minute ends it before its limit is met. A load that says it draws something else than it was told, or a supply
 * that gives more than it takes, is not believed. The thresholds are usual.
 *
 * @param samples in time order, the last one new; of earlier ones the last minute is enough
 */
export function watchRun(plan: RunPlan, samples: readonly RunSample[]): RunStop | null {
  const last = samples.at(-1);
  if (!last) return null;
  return atOnce(plan, last) ?? heat(plan, samples) ?? standing(plan, samples);
}

function atOnce(plan: RunPlan, sample: RunSample): RunStop | null {
  if (sample.isMainsOn === false) return stopBecause("mains_gone");
  for (const rail of plan.rails) {
    const read = sample.rails.find((one) => one.netId === rail.netId);
    if (!read) continue;
    const volts = Math.abs(read.volts);
    if (read.setAmps > 0 && !read.isOn) return stopBecause("load_gone", rail.netId);
    if (read.amps > rail.mostAmps) return stopBecause("over_current", rail.netId, read.amps, rail.mostAmps);
    if (volts > rail.highVolts) return stopBecause("over_voltage", rail.netId, volts, rail.highVolts);
  }
  const { inputWatts } = sample;
  if (inputWatts !== null && plan.mostInputWatts !== null && inputWatts > plan.mostInputWatts) {
    return stopBecause("over_power", null, inputWatts, plan.mostInputWatts);
  }
  for (const [n, spot] of plan.spots.entries()) {
    const celsius = sample.celsius[n] ?? null;
    if (celsius !== null && celsius > spot.mostCelsius) {
      return stopBecause("over_temperature", spot.targetId, celsius, spot.mostCelsius);
    }
  }
  return null;
}

function heat(plan: RunPlan, samples: readonly RunSample[]): RunStop | null {
  const last = samples.at(-1);
  if (!last) return null;
  const window = samples.filter((one) => last.seconds - one.seconds <= limits.riseWindowSeconds);
  for (const [n, spot] of plan.spots.entries()) {
    const rate = kelvinPerMinute(window.map((one) => [one.seconds, one.celsius[n] ?? null]));
    if (rate !== null && rate > plan.mostKelvinPerMinute) {
      return stopBecause("heat_too_fast", spot.targetId, rate, plan.mostKelvinPerMinute);
    }
  }
  return null;
}

/**
 * Slope of the least squares line; less its own error twice, so that a thermometer's noise ends no run. null: fewer than five, or over
 * less than half of the window.
 */
function kelvinPerMinute(pairs: readonly (readonly [number, number | null])[]): number | null {
  const points = pairs.flatMap(([seconds, celsius]) => (celsius === null ? [] : [[seconds, celsius] as const]));
  const [first, last] = [points[0], points.at(-1)];
  if (points.length < 5 || !first || !last || last[0] - first[0] < limits.riseWindowSeconds / 2) return null;
  const count = points.length;
  const meanT = points.reduce((sum, [t]) => sum + t, 0) / count;
  const meanC = points.reduce((sum, [, c]) => sum + c, 0) / count;
  const tt = points.reduce((sum, [t]) => sum + (t - meanT) ** 2, 0);
  const slope = points.reduce((sum, [t, c]) => sum + (t - meanT) * (c - meanC), 0) / tt;
  const squares = points.reduce((sum, [t, c]) => sum + (c - meanC - slope * (t - meanT)) ** 2, 0);
  const deviation = Math.sqrt(squares / (count - 2) / tt);
  return 60 * (slope - 2 * deviation);
}

/** What has to stand in two samples of one settled step. */
function standing(plan: RunPlan, samples: readonly RunSample[]): RunStop | null {
  const [before, last] = samples.slice(-2);
  if (!before || !last || last.step !== before.step || last.isPaused !== before.isPaused) return null;
  if (before.stepSeconds < limits.settleSeconds) return null;
  const found = contradiction(plan, last);
  return found && contradiction(plan, before)?.code === found.code ? found : null;
}

function contradiction(plan: RunPlan, sample: RunSample): RunStop | null {
  for (const rail of plan.rails) {
    const read = sample.rails.find((one) => one.netId === rail.netId);
    if (!read) continue;
    const volts = Math.abs(read.volts);
    if (volts < rail.lowVolts) return stopBecause("under_voltage", rail.netId, volts, rail.lowVolts);
    // Held by its volts, a load draws what the output gives.
    const off = rail.heldVolts === null ? Math.abs(read.amps - read.setAmps) : 0;
    if (off > limits.loadErrorRatio * read.setAmps + limits.loadErrorAmps) {
      return stopBecause("load_lies", rail.netId, read.amps, read.setAmps);
    }
  }
  const { ripple } = plan;
  if (ripple && sample.rippleVolts === null) return stopBecause("no_probe", ripple.netId);
  if (ripple?.mostVolts != null && (sample.rippleVolts ?? 0) > ripple.mostVolts) {
    return stopBecause("over_ripple", ripple.netId, sample.rippleVolts, ripple.mostVolts);
  }
  for (const [n, spot] of plan.spots.entries()) {
    if ((sample.celsius[n] ?? null) === null) return stopBecause("no_probe", spot.targetId);
  }
  const given = sample.rails.reduce((sum, one) => sum + Math.abs(one.volts) * one.amps, 0);
  const { inputWatts } = sample;
  if (inputWatts !== null && given > limits.leastTellingWatts && inputWatts < given * limits.leastInputShare) {
    return stopBecause("watts_contradict", null, inputWatts, given);
  }
  return null;
}

/** What a step of the plan tells its loads to draw; paused, what each output needs at least. */
export function setAmpsOf(plan: RunPlan, step: number, isPaused: boolean, leastOf: (netId: string) => number) {
  return plan.rails.map(({ netId, loadId, heldVolts }) => ({
    ...{ netId, loadId, heldVolts },
    amps: isPaused ? leastOf(netId) : ampsInStep(plan.steps[step], netId),
  }));
}
