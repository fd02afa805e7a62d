import { type DrawnColumn, decimate, type RailRipple, type RipplePrediction } from "@pale-cap/core";

/** One column of the chart: seconds from its left edge, volts about the mean. */
export interface RippleColumn {
  readonly seconds: number;
  readonly healthy: number;
  readonly measured: number;
  readonly replaced: number;
  readonly captured: readonly [number, number] | null;
}

const columns = 240;
const shownPeriods = 2;
const phaseSteps = 64;

/** Quiet volts at the load at a moment of the period; two samples at one time are the sides of a corner. */
function valueAt({ ripple, quiet }: RailRipple, seconds: number): number {
  const course = quiet.at(-1);
  if (!course) return 0;
  const times = ripple.seconds;
  let [low, high] = [0, times.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((times[middle] as number) <= seconds) low = middle;
    else high = middle;
  }
  const [t0, t1] = [times[low] as number, times[high] as number];
  const [v0, v1] = [course.values[low] as number, course.values[high] as number];
  return t1 > t0 ? v0 + ((v1 - v0) * (seconds - t0)) / (t1 - t0) : v0;
}

/** Two periods of the three states on one grid, with the capture laid over them where its phase fits best. */
export function rippleColumns(
  prediction: RipplePrediction,
  capture: { readonly samples: Float32Array; readonly intervalSeconds: number; readonly meanVolts: number } | null,
): readonly RippleColumn[] {
  const period = prediction.described.source.periodSeconds;
  const { healthy, measured, replaced } = prediction.states;
  const drawn = capture && aligned(prediction, capture);
  return Array.from({ length: columns }, (_, n) => {
    const seconds = (n / columns) * shownPeriods * period;
    const at = seconds % period;
    const column = drawn?.[Math.floor((n / columns) * drawn.length)];
    return {
      seconds,
      healthy: valueAt(healthy, at),
      measured: valueAt(measured, at),
      replaced: valueAt(replaced, at),
      captured: column ? ([column.low, column.high] as const) : null,
    };
  });
}

/** The stretch of a capture that lies best over the prediction, about its own mean; null where it is too coarse. */
function aligned(
  prediction: RipplePrediction,
  capture: { readonly samples: Float32Array; readonly intervalSeconds: number; readonly meanVolts: number },
): readonly DrawnColumn[] | null {
  const period = prediction.described.source.periodSeconds;
  const { samples, intervalSeconds } = capture;
  const perPeriod = period / intervalSeconds;
  const wanted = Math.ceil((shownPeriods + 1) * perPeriod);
  if (perPeriod < 4 || samples.length < wanted) return null;
  const stretch = samples.subarray(0, wanted);
  let mean = 0;
  for (const value of stretch) mean += value / stretch.length;
  let [best, least] = [0, Infinity];
  for (let step = 0; step < phaseSteps; step++) {
    const offset = (step / phaseSteps) * perPeriod;
    let sum = 0;
    for (let n = 0; n < phaseSteps; n++) {
      const at = (n / phaseSteps) * period;
      const value = (stretch[Math.floor(offset + at / intervalSeconds)] ?? 0) - mean;
      sum += (value - valueAt(prediction.states.measured, at)) ** 2;
    }
    if (sum < least) [best, least] = [Math.floor(offset), sum];
  }
  const shown = decimate(stretch, intervalSeconds, columns, best, best + Math.floor(shownPeriods * perPeriod));
  return shown.map((one) => ({ ...one, low: one.low - mean, high: one.high - mean }));
}

/** The whole window of a capture, least and most of each column, about its mean. */
export function captureColumns(
  samples: Float32Array,
  intervalSeconds: number,
  meanVolts: number,
): readonly { readonly seconds: number; readonly captured: readonly [number, number] }[] {
  return decimate(samples, intervalSeconds, 600).map(({ seconds, low, high }) => ({
    seconds,
    captured: [low - meanVolts, high - meanVolts] as const,
  }));
}
