import type { CaptureAnalysis } from "../facts/captures";

/** What a part of a rail's ripple points to. */
export type RippleCause = "bulk" | "asymmetry" | "output_capacitors" | "control_or_light_load" | "spikes" | "drift";

export interface RippleCauseShare {
  readonly cause: RippleCause;
  readonly frequencyHertz: number | null;
  readonly volts: number;
  /** Of all parts together. */
  readonly shareRatio: number;
}

export interface RippleAttribution {
  /** Largest first; nothing below a twentieth of the whole. */
  readonly causes: readonly RippleCauseShare[];
  /** Switching ripple as captured, and as the filter's read values bring it about; null where either is not known. */
  readonly switchingVolts: number | null;
  readonly predictedVolts: number | null;
  /** How much of the captured switching ripple the read values explain, at most 1; null as above. */
  readonly explainedRatio: number | null;
  /** What they leave over, beyond the band of what was assumed; 0 where nothing. */
  readonly unexplainedVolts: number | null;
}

const leastShareRatio = 0.05;
/** A drift over the window that is less than this share of the ripple is none. */
const driftShareRatio = 0.3;

/**
 * Which stage each part of a captured ripple comes from: twice the mains frequency from the bulk, the mains frequency itself
 * from an asymmetry (an open bridge diode, a lost half of a doubler), the switching frequency from the output capacitors,
 * bursts from the control supply or a light load. Beside the capacitors' own ripple, spikes are of the edges and the probe.
 *
 * @param predicted ripple at the load from the read values, with the highest that the assumptions allow
 */
export function rippleAttribution(
  analysis: CaptureAnalysis,
  predicted: { readonly volts: number; readonly highVolts: number } | null,
): RippleAttribution {
  const parts: Omit<RippleCauseShare, "shareRatio">[] = [];
  const add = (cause: RippleCause, part: { readonly frequencyHertz: number; readonly peakToPeak: number } | null) => {
    if (part) parts.push({ cause, frequencyHertz: part.frequencyHertz, volts: part.peakToPeak });
  };
  add("bulk", analysis.doubleMains);
  add("asymmetry", analysis.mains);
  add("output_capacitors", analysis.switching);
  const { pulsing } = analysis;
  if (pulsing) {
    const volts = pulsing.depthRatio * analysis.quietPeakToPeakVolts;
    parts.push({ cause: "control_or_light_load", frequencyHertz: pulsing.frequencyHertz, volts });
  }
  if (analysis.spikePeakToPeakVolts > 0.25 * analysis.quietPeakToPeakVolts) {
    parts.push({ cause: "spikes", frequencyHertz: null, volts: analysis.spikePeakToPeakVolts });
  }
  const drift = Math.abs(analysis.driftVoltsPerSecond) * analysis.sampleCount * analysis.intervalSeconds;
  if (drift > driftShareRatio * analysis.quietPeakToPeakVolts && !pulsing && !analysis.doubleMains) {
    parts.push({ cause: "drift", frequencyHertz: null, volts: drift });
  }
  const total = parts.reduce((sum, one) => sum + one.volts, 0);
  const causes = parts
    .map((one) => ({ ...one, shareRatio: total > 0 ? one.volts / total : 0 }))
    .filter((one) => one.shareRatio >= leastShareRatio)
    .sort((a, b) => b.volts - a.volts);
  const switchingVolts = analysis.switching?.peakToPeak ?? null;
  const isKnown = switchingVolts !== null && predicted !== null && switchingVolts > 0;
  return {
    causes,
    switchingVolts,
    predictedVolts: predicted?.volts ?? null,
    explainedRatio: isKnown ? Math.min(predicted.volts / switchingVolts, 1) : null,
    unexplainedVolts: isKnown ? Math.max(switchingVolts - predicted.highVolts, 0) : null,
  };
}

/** An AC reading of a multimeter as ripple: true RMS up to its bandwidth, so a floor and no more. */
export const meterBandwidthHertz = 1000;
export const peakToPeakOfSineRms = 2 * Math.SQRT2;
