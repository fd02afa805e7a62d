import { OutOfRangeError } from "../errors";
import type { CaptureAnalysis, CapturePart } from "../facts/captures";
import { captureSpectrum } from "./captureSpectrum";
import { fitHarmonics } from "./harmonicFit";
import { pulsingOf } from "./pulsing";
import { switchingPart } from "./switchingPart";

const limitHertz = 20e6;
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
  const spectrum = captureSpectrum(samples, intervalSeconds, mean);
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
    pulsing: pulsingOf(samples, intervalSeconds, mainsHertz, switching) ?? spectrum.subharmonic,
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
