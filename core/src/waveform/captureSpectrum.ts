import { fourierTransform } from "../numerics/fourier";

const mostSpectrumSamples = 1 << 16;
const lowestSwitchingHertz = 5000;
const highestSwitchingHertz = 2e6;
/** A switching line must stand so far above the middle of its spectrum. */
const standsOut = 8;

export interface CaptureSpectrum {
  readonly peaks: readonly { readonly frequencyHertz: number; readonly amplitude: number }[];
  /** Of the switching range only. */
  readonly strongestSwitching: { readonly frequencyHertz: number; readonly amplitude: number } | null;
  readonly binHertz: number;
  /** A line at half the switching frequency: periods that differ by turns. */
  readonly subharmonic: { readonly frequencyHertz: number; readonly depthRatio: number } | null;
}

/** A line at a fraction of the strongest counts from this share of its amplitude. */
const leastFractionRatio = 0.15;
/** Weaker than this it is no fundamental. */
const subharmonicBelowRatio = 0.7;

/** Amplitude spectrum of the first stretch, Hann windowed; peaks between bins by a parabola through logs. */
export function captureSpectrum(samples: ArrayLike<number>, intervalSeconds: number, mean: number): CaptureSpectrum {
  let size = 16;
  while (size * 2 <= Math.min(samples.length, mostSpectrumSamples)) size *= 2;
  const re = new Float64Array(size);
  const im = new Float64Array(size);
  for (let n = 0; n < size; n++) {
    re[n] = ((samples[n] as number) - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * n) / size));
  }
  fourierTransform(re, im);
  const half = size >> 1;
  const amplitudes = Float64Array.from(
    { length: half },
    (_, k) => (4 * Math.hypot(re[k] as number, im[k] as number)) / size,
  );
  const binHertz = 1 / (size * intervalSeconds);
  const peaks: { frequencyHertz: number; amplitude: number }[] = [];
  for (let k = 2; k < half - 1; k++) {
    const [before, at, after] = [amplitudes[k - 1] as number, amplitudes[k] as number, amplitudes[k + 1] as number];
    if (!(at > before && at >= after && at > 0)) continue;
    const [a, b, c] = [Math.log(before + 1e-30), Math.log(at), Math.log(after + 1e-30)];
    const shift = a - 2 * b + c === 0 ? 0 : (0.5 * (a - c)) / (a - 2 * b + c);
    peaks.push({ frequencyHertz: (k + shift) * binHertz, amplitude: at });
  }
  peaks.sort((one, other) => other.amplitude - one.amplitude);
  const middle = [...amplitudes].sort((one, other) => one - other)[half >> 1] ?? 0;
  const inRange = peaks.filter(
    (one) => one.frequencyHertz >= lowestSwitchingHertz && one.frequencyHertz <= highestSwitchingHertz,
  );
  const strongest = inRange[0];
  const isOut = strongest !== undefined && strongest.amplitude > standsOut * middle;
  // The fundamental may be weaker than a harmonic: a line at a third of the strongest, if it stands out too, is it; one at
  // half of it as well, unless it is much weaker: then every other period differs.
  const fraction = (order: number) =>
    isOut
      ? inRange.find(
          (one) =>
            Math.abs(strongest.frequencyHertz / one.frequencyHertz - order) < 0.02 * order &&
            one.amplitude > standsOut * middle &&
            one.amplitude > leastFractionRatio * strongest.amplitude,
        )
      : undefined;
  const [atHalf, atThird] = [fraction(2), fraction(3)];
  const isSubharmonic = isOut && atHalf !== undefined && atHalf.amplitude < subharmonicBelowRatio * strongest.amplitude;
  return {
    peaks,
    binHertz,
    strongestSwitching: isOut ? (isSubharmonic ? strongest : (atHalf ?? atThird ?? strongest)) : null,
    subharmonic: isSubharmonic
      ? { frequencyHertz: atHalf.frequencyHertz, depthRatio: atHalf.amplitude / strongest.amplitude }
      : null,
  };
}
