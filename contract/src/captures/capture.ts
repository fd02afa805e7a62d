import { type CaptureAnalysis, mostCaptureSamples } from "@pale-cap/core";
import type { InferType } from "yup";
import type { StoredFact } from "../facts/clock";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  instantField,
  nullableBetween,
  nullableId,
  nullablePositive,
  nullableText,
  strictObject,
  textField,
  versionField,
} from "../fields/fields";

export const captureLimits = {
  /** Of the file that a person chooses: read in pieces, never whole. */
  fileBytes: 400 * 1024 * 1024,
  /** Of the compressed samples that are stored. */
  uploadBytes: 24 * 1024 * 1024,
  samples: mostCaptureSamples,
} as const;

const volts = () => finiteNumber().min(0).max(1e4).required();
const part = () =>
  strictObject({ frequencyHertz: volts().max(1e9), peakToPeak: volts(), rms: volts() })
    .nullable()
    .default(undefined)
    .defined();

/** What the browser's worker found in the samples (core's analyseCapture). */
const captureAnalysisSchema = strictObject({
  sampleCount: finiteNumber().integer().min(16).max(captureLimits.samples).required(),
  intervalSeconds: finiteNumber().moreThan(0).max(100).required(),
  meanVolts: finiteNumber().min(-1e4).max(1e4).required(),
  peakToPeakVolts: volts(),
  limitedPeakToPeakVolts: nullableBetween(0, 1e4),
  rmsVolts: volts(),
  quietPeakToPeakVolts: volts(),
  spikePeakToPeakVolts: volts(),
  spikesPerSecond: finiteNumber().min(0).max(1e9).required(),
  mains: part(),
  doubleMains: part(),
  switching: part(),
  pulsing: strictObject({ frequencyHertz: volts().max(1e9), depthRatio: finiteNumber().min(0).max(1).required() })
    .nullable()
    .default(undefined)
    .defined(),
  driftVoltsPerSecond: finiteNumber().required(),
  dominant: array()
    .of(strictObject({ frequencyHertz: volts().max(1e9), amplitude: volts() }).required())
    .max(12)
    .required(),
});

/** What may have falsified a capture: asked for with it, and kept. */
const captureRigSchema = strictObject({
  hasLongGroundLead: boolean().required(),
  isAcCoupled: boolean().required(),
  isIsolationTransformer: boolean().required(),
  isBandwidthLimited: boolean().required(),
});
export type CaptureRig = InferType<typeof captureRigSchema>;

/** What travels beside the gzipped samples (32-bit floats, little endian), as the form field `about`. */
export const newCaptureSchema = strictObject({
  id: idField(),
  netId: idField(),
  name: textField(120),
  loadAmps: nullablePositive(500),
  rig: captureRigSchema.required(),
  analysis: captureAnalysisSchema.required(),
  /** The core that analysed it. */
  coreVersion: textField(20),
  /** From which instrument; null: from a file. */
  instrument: nullableText(80),
  isSimulated: boolean().optional(),
  measuredAt: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewCapture = Omit<InferType<typeof newCaptureSchema>, "analysis"> & { readonly analysis: CaptureAnalysis };

/** A capture as a job holds it; the samples have an address of their own. */
export interface CaptureRow extends StoredFact {
  readonly id: string;
  readonly version: number;
  readonly netId: string;
  readonly name: string;
  readonly loadAmps: number | null;
  readonly rig: CaptureRig;
  readonly analysis: CaptureAnalysis;
  readonly coreVersion: string;
  readonly instrument: string | null;
  readonly isSimulated: boolean;
  readonly measuredAt: string;
}

/** An analysis that a newer core made of the same samples. */
export const captureAnalysisEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  coreVersion: textField(20),
  analysis: captureAnalysisSchema.required(),
});
export type CaptureAnalysisEdit = Omit<InferType<typeof captureAnalysisEditSchema>, "analysis"> & {
  readonly analysis: CaptureAnalysis;
};
