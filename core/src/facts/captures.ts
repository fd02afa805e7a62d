import type { FactMoment, PlacedFact } from "../readings/factMoment";

/** One periodic part of a capture. */
export interface CapturePart {
  readonly frequencyHertz: number;
  readonly peakToPeak: number;
  readonly rms: number;
}

/** How often the ripple comes and goes, and how deep. */
export interface Pulsing {
  readonly frequencyHertz: number;
  readonly depthRatio: number;
}

/** What a capture is made of. */
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
  /** Bursts, hiccup, or periods that differ by turns: how often, and how deep the ripple comes and goes; null where it is steady. */
  readonly pulsing: Pulsing | null;
  readonly driftVoltsPerSecond: number;
  /** Strongest lines of the spectrum, strongest first. */
  readonly dominant: readonly { readonly frequencyHertz: number; readonly amplitude: number }[];
}

/** A ripple capture of a rail, as far as the computations need it. */
export interface CaptureFact extends Pick<FactMoment, "sequence"> {
  readonly id: string;
  readonly netId: string;
  readonly loadAmps: number | null;
  readonly analysis: CaptureAnalysis;
  readonly measuredAt: string;
}

/** A capture as a fact among others. */
export const loggedCapture = ({ measuredAt, sequence }: Pick<CaptureFact, "measuredAt" | "sequence">): PlacedFact => ({
  at: measuredAt,
  sequence,
});
