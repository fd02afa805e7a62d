import type { CapturePart, Pulsing } from "../facts/captures";
import { percentile } from "../numerics/percentile";

/** Blocks for the course of the ripple's strength: never shorter than so many switching periods. */
const mostBlocks = 512;
const periodsPerBlock = 6;
const pulsingDepthRatio = 0.5;
/** Weak and strong are what this share of the blocks lies below. */
const [weakShare, strongShare] = [0.1, 0.9];
/** A course this near to the mains or its double is the mains, relative. */
const mainsNearRatio = 0.1;

/** Strength (RMS) of the ripple in short blocks, and whether it comes and goes by itself, not with the mains. */
export function pulsingOf(
  samples: ArrayLike<number>,
  intervalSeconds: number,
  mainsHertz: number,
  switching: CapturePart | null,
): Pulsing | null {
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
  const levels = [...strength];
  const [low, high] = [percentile(levels, weakShare), percentile(levels, strongShare)];
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
  const isMains = [1, 2].some((order) => Math.abs(frequencyHertz / (order * mainsHertz) - 1) < mainsNearRatio);
  return isMains ? null : { frequencyHertz, depthRatio };
}
