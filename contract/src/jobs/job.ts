import { type DeviceKind, deviceKinds, type Lens, symptomCodes } from "@pale-cap/core";
import type { InferType } from "yup";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  instantField,
  nullableBetween,
  nullableDay,
  nullableId,
  nullableText,
  nullableWord,
  number,
  strictObject,
  string,
  textField,
  versionField,
  wordField,
} from "../fields/fields";

/** What a job is made with; everything but the kind may be unknown. */
export const createJobSchema = strictObject({
  id: idField(),
  deviceKind: wordField<DeviceKind>(deviceKinds),
  deviceMaker: nullableText(80),
  deviceModel: nullableText(80),
  complaint: nullableText(2000),
  personId: nullableId(),
});
export type CreateJob = InferType<typeof createJobSchema>;

export const supplyChecks = ["swap", "benchFeed", "leadAndFuse", "rearSwitch"] as const;
export type SupplyCheck = (typeof supplyChecks)[number];

const moneyField = () => number().integer().min(0).max(100_000_000).nullable().defined();
const checkField = () => nullableWord<"good" | "bad">(["good", "bad"]);

/** What is noted at the counter beyond the complaint; everything may be unknown. */
export const intakeDetailsSchema = strictObject({
  asReceived: strictObject({
    outputVolts: nullableBetween(-1000, 1000),
    inputWatts: nullableBetween(0, 5000),
    lights: nullableText(120),
    sound: nullableText(120),
  }).required(),
  supplyChecks: strictObject({
    swap: checkField(),
    benchFeed: checkField(),
    leadAndFuse: checkField(),
    rearSwitch: checkField(),
  }).required(),
  economics: strictObject({
    labourMinutes: nullableBetween(0, 6000),
    partsMinor: moneyField(),
    replacementMinor: moneyField(),
  }).required(),
});
export type IntakeDetails = InferType<typeof intakeDetailsSchema>;

export const noIntakeDetails: IntakeDetails = {
  asReceived: { outputVolts: null, inputWatts: null, lights: null, sound: null },
  supplyChecks: { swap: null, benchFeed: null, leadAndFuse: null, rearSwitch: null },
  economics: { labourMinutes: null, partsMinor: null, replacementMinor: null },
};

/** All of intake; an edit replaces it whole. */
export const intakeSchema = strictObject({
  deviceKind: wordField<DeviceKind>(deviceKinds),
  deviceMaker: nullableText(80),
  deviceModel: nullableText(80),
  deviceSerial: nullableText(80),
  deviceAgeYears: nullableBetween(0, 100),
  complaint: nullableText(2000),
  symptoms: array().of(string().oneOf(symptomCodes).required()).max(40).required(),
  symptomNote: nullableText(2000),
  priceLimitMinor: moneyField(),
  dueOn: nullableDay(),
  customerName: nullableText(120),
  customerContact: nullableText(200),
  ownersWords: nullableText(2000),
  intakeDetails: intakeDetailsSchema.required(),
});
export type Intake = InferType<typeof intakeSchema>;

export const intakeEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  values: intakeSchema.required(),
});
export type IntakeEdit = InferType<typeof intakeEditSchema>;

export const acceptanceSchema = strictObject({
  id: idField(),
  key: textField(120),
  reason: textField(500),
  acceptedAt: instantField(),
  personId: nullableId(),
});
export type Acceptance = InferType<typeof acceptanceSchema>;

/** Closes a job; the judgement that stood then is kept with it. */
export const handOverSchema = strictObject({
  id: idField(),
  handedOverAt: instantField(),
  warrantyMonths: finiteNumber().integer().min(0).max(120).required(),
  note: nullableText(4000),
  isReopened: boolean().required(),
});
export type HandOver = InferType<typeof handOverSchema>;

/** A job as intake stores it. */
export interface Job extends Intake {
  readonly id: string;
  readonly number: number;
  readonly version: number;
  readonly createdAt: string;
  readonly handedOverAt: string | null;
  readonly warrantyUntil: string | null;
  readonly handOverNote: string | null;
}

/** A line of the bench. */
export interface BenchLine {
  readonly id: string;
  readonly number: number;
  readonly deviceKind: string;
  readonly deviceMaker: string | null;
  readonly deviceModel: string | null;
  readonly complaint: string | null;
  readonly lens: Lens;
  readonly openPointCount: number;
  readonly chargeName: "unknown" | "charged" | "draining" | "verified";
  readonly chargeVolts: number | null;
  readonly chargeAt: string | null;
  readonly dueOn: string | null;
  readonly createdAt: string;
  readonly handedOverAt: string | null;
}

export interface Person {
  readonly id: string;
  readonly name: string;
}
