import { gzipSync } from "node:zlib";
import {
  analyseCapture,
  type CaptureAnalysis,
  type RailRipple,
  type SourceCurrent,
  seededRandom,
} from "@pale-cap/core";
import type { DemoCapture } from "./demoJob";

const mainsHertz = 50;
const noiseVolts = 0.0015;
const most = 40_000;

/** A scope's samples of a rail, about 0 V: the ripple of its capacitors as they were read, mains, spikes and noise. */
export function drawCapture(
  demo: DemoCapture,
  ripple: RailRipple,
  source: SourceCurrent,
  seed: number,
): { readonly analysis: CaptureAnalysis; readonly packed: Buffer } {
  const random = seededRandom(seed);
  const period = source.periodSeconds;
  const count = Math.min(most, Math.round((demo.seconds / period) * 60));
  const interval = demo.seconds / count;
  const course = ripple.quiet.at(-1);
  const samples = Float32Array.from({ length: count }, (_, n) => {
    const at = n * interval + 0.37 * period;
    const within = at % period;
    const index = ripple.ripple.seconds.findIndex((one) => one > within);
    const switching = course?.values[Math.max(index, 0)] ?? 0;
    // Rectified mains: a quick rise and a slow fall, twice in each cycle.
    const half = (at * 2 * mainsHertz) % 1;
    const mains = demo.mainsVolts * (half < 0.2 ? half / 0.2 - 0.5 : 0.5 - (half - 0.2) / 0.8);
    const spike = within / period < 0.012 ? 0.25 * (course?.peakToPeak ?? 0) : 0;
    return switching + mains + spike + noiseVolts * (random() - 0.5);
  });
  return { analysis: analyseCapture(samples, interval, mainsHertz), packed: gzipSync(Buffer.from(samples.buffer)) };
}
