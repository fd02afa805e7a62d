/** One periodic part of a capture. */
export interface CapturePart {
  readonly frequencyHertz: number;
  readonly peakToPeak: number;
  readonly rms: number;
}
