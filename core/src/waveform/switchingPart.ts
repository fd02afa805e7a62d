import type { CapturePart } from "../facts/captures";
import { median } from "../numerics/median";
import type { CaptureSpectrum } from "./captureSpectrum";
import { fitHarmonics } from "./harmonicFit";

const switchingOrders = 8;
const mostSwitchingSamples = 20_000;

/**
 * The switching part of a capture at the strongest line of its range: frequency by the spectrum and then by the fit itself,
 * RMS of the fitted harmonics, peak to peak of the usual period. null where no line stands out, or too few samples tell.
 */
export function switchingPart(
  samples: ArrayLike<number>,
  intervalSeconds: number,
  spectrum: CaptureSpectrum,
): CapturePart | null {
  const line = spectrum.strongestSwitching;
  if (!line) return null;
  const periods = 60;
  const wanted = Math.min(
    samples.length,
    mostSwitchingSamples,
    Math.ceil(periods / line.frequencyHertz / intervalSeconds),
  );
  const stretch = Float64Array.from({ length: Math.max(wanted, 16) }, (_, n) => samples[n] as number);
  const highest = Math.max(1, Math.min(switchingOrders, Math.floor(0.4 / (line.frequencyHertz * intervalSeconds))));
  const orders = Array.from({ length: highest }, (_, n) => n + 1);
  if (stretch.length < 2 * (2 + 2 * highest)) return null;
  // The parabola knows the frequency to a tenth of a bin: the fit itself says where in between it lies.
  const left = (hertz: number) =>
    fitHarmonics(stretch, intervalSeconds, hertz, [1, ...orders.slice(1, 3)]).residualMeanSquare;
  let [from, to] = [-1, 1].map((side) => line.frequencyHertz + side * 0.1 * spectrum.binHertz) as [number, number];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let n = 0; n < 24; n++) {
    const [a, b] = [to - golden * (to - from), from + golden * (to - from)];
    if (left(a) < left(b)) to = b;
    else from = a;
  }
  const fit = fitHarmonics(stretch, intervalSeconds, (from + to) / 2, orders);
  return {
    frequencyHertz: fit.frequencyHertz,
    peakToPeak: foldedPeakToPeak(stretch, intervalSeconds, fit.frequencyHertz),
    rms: fit.rms,
  };
}

const foldedBins = 100;

/**
 * Peak to peak of the usual period: all periods of a stretch laid over each other, the median of each place. Steep edges
 * stay as they are, where a sum of harmonics would ring; what is not in step drops out. A straight drift over the stretch is taken off first.
 */
function foldedPeakToPeak(samples: Float64Array, intervalSeconds: number, frequencyHertz: number): number {
  const count = samples.length;
  const centre = (count - 1) / 2;
  const moment = samples.reduce((sum, value, n) => sum + value * (n - centre), 0);
  const slope = (12 * moment) / (count * (count * count - 1));
  const bins = Math.min(foldedBins, Math.floor(count / 4));
  const folded: number[][] = Array.from({ length: bins }, () => []);
  samples.forEach((value, n) => {
    const bin = Math.min(Math.floor(((n * intervalSeconds * frequencyHertz) % 1) * bins), bins - 1);
    folded[bin]?.push(value - slope * (n - centre));
  });
  let [low, high] = [Infinity, -Infinity];
  for (const values of folded) {
    if (values.length === 0) continue;
    const middle = median(values);
    low = Math.min(low, middle);
    high = Math.max(high, middle);
  }
  return high - low;
}
