import { OutOfRangeError } from "../errors";
import { fourierTransform } from "../numerics/fourier";
import { fitHarmonics } from "./harmonicFit";

/** One periodic part of a capture. */
export interface CapturePart {
  readonly frequencyHertz: number;
  readonly peakToPeak: number;
  readonly rms: number;
}

export interface CaptureAnalysis {
  readonly sampleCount: number;
  readonly intervalSeconds: number;
  readonly meanVolts: number;
  readonly peakToPeakVolts: number;
  /** After a limit like a scope's 20 MHz; null where the sampling is slower than that anyway. */
  readonly limitedPeakToPeakVolts: number | null;
  readonly rmsVolts: number;
  /** Without spikes: between the levels that one sample in five hundred lies beyond. */
  readonly quietPeakToPeakVolts: number;
  readonly spikePeakToPeakVolts: number;
  readonly spikesPerSecond: number;
  /** At the mains frequency itself and its odd multiples; null where the window is shorter than half a cycle. */
  readonly mains: CapturePart | null;
  /** At twice the mains frequency and its multiples. */
  readonly doubleMains: CapturePart | null;
  /** At the switching frequency and its harmonics; null where none stands out. */
  readonly switching: CapturePart | null;
  /** Bursts or hiccup: how often, and how deep the ripple comes and goes; null where it is steady. */
  readonly pulsing: { readonly frequencyHertz: number; readonly depthRatio: number } | null;
  readonly driftVoltsPerSecond: number;
  /** Strongest lines of the spectrum, strongest first. */
  readonly dominant: readonly { readonly frequencyHertz: number; readonly amplitude: number }[];
}

const mostSpectrumSamples = 1 << 16;
const lowestSwitchingHertz = 5000;
const highestSwitchingHertz = 2e6;
const limitHertz = 20e6;
/** A switching line must stand so far above the middle of its spectrum. */
const standsOut = 8;
const mainsOrders = 10;

/**
 * What a ripple capture is made of: levels with and without spikes, the parts at the mains frequency, at its double and at
 * the switching frequency, pulsing, drift and the strongest lines.
 *
 * Parts are least-squares fits of harmonics over the window as it is (fitHarmonics), the mains ones on block means, the
 * switching one on the densest stretch; spectra use a Hann window. Spikes are what lies beyond the quiet levels. Pulsing is
 * a slow course of the ripple's own strength that is no multiple of the mains.
 *
 * @param mainsHertz 50 or 60, as the shop's supply has it
 * @throws {OutOfRangeError} fewer than 16 samples, an interval not above 0, values that are not finite
 */
export function analyseCapture(
  samples: Float32Array | Float64Array,
  intervalSeconds: number,
  mainsHertz: number,
): CaptureAnalysis {
  const count = samples.length;
  if (count < 16) throw new OutOfRangeError("samples", count, "at least 16");
  if (!(intervalSeconds > 0 && Number.isFinite(intervalSeconds))) {
    throw new OutOfRangeError("intervalSeconds", intervalSeconds, "above 0");
  }
  let [low, high, sum] = [Infinity, -Infinity, 0];
  for (let n = 0; n < count; n++) {
    const value = samples[n] as number;
    if (!Number.isFinite(value)) throw new OutOfRangeError("samples", value, "finite");
    low = Math.min(low, value);
    high = Math.max(high, value);
    sum += value;
  }
  const mean = sum / count;
  let [squares, moment] = [0, 0];
  for (let n = 0; n < count; n++) {
    const value = (samples[n] as number) - mean;
    squares += value * value;
    moment += value * (n - (count - 1) / 2);
  }
  const seconds = count * intervalSeconds;
  const levels = quietLevels(samples, low, high);
  const mains = mainsParts(samples, intervalSeconds, mainsHertz);
  const spectrum = spectrumOf(samples, intervalSeconds, mean);
  const switching = switchingPart(samples, intervalSeconds, spectrum);
  return {
    sampleCount: count,
    intervalSeconds,
    meanVolts: mean,
    peakToPeakVolts: high - low,
    limitedPeakToPeakVolts: limitedPeakToPeak(samples, intervalSeconds, mean),
    rmsVolts: Math.sqrt(squares / count),
    quietPeakToPeakVolts: levels.high - levels.low,
    spikePeakToPeakVolts: Math.max(high - low - (levels.high - levels.low), 0),
    spikesPerSecond: countSpikes(samples, levels) / seconds,
    ...mains,
    switching,
    pulsing: pulsingOf(samples, intervalSeconds, mainsHertz, switching),
    driftVoltsPerSecond: (moment * 12) / (count * (count * count - 1)) / intervalSeconds,
    dominant: spectrum.peaks.slice(0, 6),
  };
}

/** Levels beyond which one sample in a thousand lies at each end, from a histogram of 4096 bins. */
function quietLevels(samples: ArrayLike<number>, low: number, high: number) {
  const bins = 4096;
  const scale = high > low ? bins / (high - low) : 0;
  const counts = new Uint32Array(bins + 1);
  for (let n = 0; n < samples.length; n++) {
    const bin = Math.floor(((samples[n] as number) - low) * scale);
    counts[bin] = (counts[bin] as number) + 1;
  }
  const beyond = samples.length * 0.001;
  let [from, to, seen] = [0, bins, 0];
  for (; from < bins; from++) {
    seen += counts[from] as number;
    if (seen > beyond) break;
  }
  seen = 0;
  for (; to > from; to--) {
    seen += counts[to] as number;
    if (seen > beyond) break;
  }
  return scale === 0 ? { low, high } : { low: low + from / scale, high: low + (to + 1) / scale };
}

/** Runs of samples beyond the quiet levels by a fifth of their distance. */
function countSpikes(samples: ArrayLike<number>, levels: { readonly low: number; readonly high: number }): number {
  const margin = 0.2 * (levels.high - levels.low);
  let [spikes, isInside] = [0, false];
  for (let n = 0; n < samples.length; n++) {
    const value = samples[n] as number;
    const isBeyond = value > levels.high + margin || value < levels.low - margin;
    if (isBeyond && !isInside) spikes += 1;
    isInside = isBeyond;
  }
  return spikes;
}

/** Peak to peak behind a one-pole limit at 20 MHz; null where the sampling is too slow to know. */
function limitedPeakToPeak(samples: ArrayLike<number>, intervalSeconds: number, mean: number): number | null {
  if (1 / intervalSeconds < 2.5 * limitHertz) return null;
  const share = 1 - Math.exp(-2 * Math.PI * limitHertz * intervalSeconds);
  let value = mean;
  let [low, high] = [Infinity, -Infinity];
  for (let n = 0; n < samples.length; n++) {
    value += share * ((samples[n] as number) - value);
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  return high - low;
}

/** Means over blocks: what is slow stays, the switching goes. */
function blockMeans(samples: ArrayLike<number>, size: number): Float64Array {
  const blocks = Math.floor(samples.length / size);
  const means = new Float64Array(blocks);
  for (let block = 0; block < blocks; block++) {
    let sum = 0;
    for (let n = block * size; n < (block + 1) * size; n++) sum += samples[n] as number;
    means[block] = sum / size;
  }
  return means;
}

function mainsParts(samples: ArrayLike<number>, intervalSeconds: number, mainsHertz: number) {
  const seconds = samples.length * intervalSeconds;
  const none = { mains: null, doubleMains: null };
  // Less than half a cycle cannot tell a mains ripple from a drift.
  if (seconds < 0.5 / mainsHertz) return none;
  const size = Math.max(1, Math.floor(1 / (mainsHertz * 2 * mainsOrders * 8) / intervalSeconds));
  const slow = blockMeans(samples, size);
  const step = size * intervalSeconds;
  const isWhole = seconds >= 1 / mainsHertz;
  const highest = Math.min(mainsOrders, Math.floor(0.4 / (step * mainsHertz)));
  const orders = Array.from({ length: highest }, (_, n) => n + 1).filter((order) => isWhole || order % 2 === 0);
  if (orders.length === 0 || slow.length < 3 * (2 + 2 * orders.length)) return none;
  // All orders are fitted together, so that neither part takes what belongs to the other.
  const fit = fitHarmonics(slow, step, mainsHertz, orders);
  const part = (keeps: (order: number) => boolean, frequencyHertz: number): CapturePart | null => {
    if (!orders.some(keeps)) return null;
    const steps = 400;
    let [low, high, squares] = [Infinity, -Infinity, 0];
    for (let n = 0; n < steps; n++) {
      const value = fit.at(n / steps / mainsHertz, keeps);
      low = Math.min(low, value);
      high = Math.max(high, value);
      squares += value * value;
    }
    return { frequencyHertz, peakToPeak: high - low, rms: Math.sqrt(squares / steps) };
  };
  return {
    mains: isWhole ? part((order) => order % 2 === 1, mainsHertz) : null,
    doubleMains: part((order) => order % 2 === 0, 2 * mainsHertz),
  };
}

interface Spectrum {
  readonly peaks: readonly { readonly frequencyHertz: number; readonly amplitude: number }[];
  /** Of the switching range only. */
  readonly strongestSwitching: { readonly frequencyHertz: number; readonly amplitude: number } | null;
  readonly binHertz: number;
}

/** Amplitude spectrum of the first stretch, Hann windowed; peaks between bins by a parabola through logs. */
function spectrumOf(samples: ArrayLike<number>, intervalSeconds: number, mean: number): Spectrum {
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
  // The fundamental may be weaker than a harmonic: a line at a half or a third of it, if it stands out too, is it.
  const lower = isOut
    ? inRange.find((one) => {
        const ratio = strongest.frequencyHertz / one.frequencyHertz;
        const isFraction = [2, 3].some((order) => Math.abs(ratio - order) < 0.02 * order);
        return isFraction && one.amplitude > standsOut * middle && one.amplitude > 0.15 * strongest.amplitude;
      })
    : undefined;
  return { peaks, binHertz, strongestSwitching: isOut ? (lower ?? strongest) : null };
}

const switchingOrders = 8;
const mostSwitchingSamples = 20_000;

function switchingPart(samples: ArrayLike<number>, intervalSeconds: number, spectrum: Spectrum): CapturePart | null {
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
    values.sort((a, b) => a - b);
    const middle = values[values.length >> 1] as number;
    low = Math.min(low, middle);
    high = Math.max(high, middle);
  }
  return high - low;
}

/** Blocks for the course of the ripple's strength: never shorter than so many switching periods. */
const mostBlocks = 512;
const periodsPerBlock = 6;
const pulsingDepthRatio = 0.5;

/** Strength (RMS) of the ripple in short blocks, and whether it comes and goes by itself, not with the mains. */
function pulsingOf(
  samples: ArrayLike<number>,
  intervalSeconds: number,
  mainsHertz: number,
  switching: CapturePart | null,
): CaptureAnalysis["pulsing"] {
  const least = switching ? periodsPerBlock / switching.frequencyHertz / intervalSeconds : 16;
  const size = Math.max(Math.ceil(least), Math.floor(samples.length / mostBlocks), 16);
  const blocks = Math.floor(samples.length / size);
  if (blocks < 24) return null;
  const strength = Float64Array.from({ length: blocks }, (_, block) => {
    let [sum, squares] = [0, 0];
    for (let n = block * size; n < (block + 1) * size; n++) {
      const value = samples[n] as number;
      sum += value;
      squares += value * value;
    }
    return Math.sqrt(Math.max(squares / size - (sum / size) ** 2, 0));
  });
  const sorted = [...strength].sort((a, b) => a - b);
  const [low, high] = [sorted[Math.floor(blocks * 0.1)] ?? 0, sorted[Math.floor(blocks * 0.9)] ?? 0];
  const depthRatio = high > 0 ? (high - low) / high : 0;
  if (depthRatio < pulsingDepthRatio) return null;
  // How often it rises through the middle between weak and strong.
  const middle = (low + high) / 2;
  const rises: number[] = [];
  for (let block = 1; block < blocks; block++) {
    if ((strength[block - 1] as number) < middle && (strength[block] as number) >= middle) rises.push(block);
  }
  const [first, last] = [rises[0], rises.at(-1)];
  if (first === undefined || last === undefined || last === first) return null;
  const frequencyHertz = (rises.length - 1) / ((last - first) * size * intervalSeconds);
  const isMains = [1, 2].some((order) => Math.abs(frequencyHertz / (order * mainsHertz) - 1) < 0.1);
  return isMains ? null : { frequencyHertz, depthRatio };
}
