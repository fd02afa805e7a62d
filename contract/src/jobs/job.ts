import { type DeviceKind, deviceKinds, symptomCodes, type Topology, topologies } from "@pale-cap/core";
import type { InferType } from "yup";
import { boardLimits } from "../boards/board";
import type { StoredFact } from "../facts/clock";
import { fault } from "../faults";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  instantField,
  nullableBetween,
  nullableDay,
  nullableId,
  nullableInstant,
  nullablePositive,
  nullableText,
  nullableWord,
  number,
  strictObject,
  string,
  textField,
  versionField,
  wordField,
} from "../fields/fields";
import type { Realm } from "../rights/rights";

/** What a job is made with; everything but the kind may be unknown. */
export const createJobSchema = strictObject({
  id: idField(),
  deviceKind: wordField<DeviceKind>(deviceKinds),
  deviceMaker: nullableText(80),
  deviceModel: nullableText(80),
  complaint: nullableText(2000),
  /** Nobody's unit: simulated instruments read there, and nothing of it counts for the shop. */
  isPractice: boolean().optional(),
  /** The job that this very unit was handed over with before: device, board and customer come from there. */
  comebackOf: nullableId().optional(),
  personId: nullableId(),
});
export type CreateJob = InferType<typeof createJobSchema>;

export const plugPolarities = ["centre_positive", "centre_negative", "other"] as const;
export type PlugPolarity = (typeof plugPolarities)[number];

const quoteAnswers = ["yes", "no", "limit"] as const;
export type QuoteAnswer = (typeof quoteAnswers)[number];

/** What feeds a unit: the mains, a supply of its own, or the device that it sits in. */
export const feedKinds = ["mains", "external_supply", "host"] as const;
export type FeedKind = (typeof feedKinds)[number];

export const supplyChecks = [
  "swap",
  "benchFeed",
  "leadAndFuse",
  "rearSwitch",
  "outputLead",
  "lamps",
  "rangeSwitch",
] as const;
export type SupplyCheck = (typeof supplyChecks)[number];

const moneyField = () => number().integer().min(0).max(100_000_000).nullable().defined();
const checkField = () => nullableWord<"good" | "bad">(["good", "bad"]);

/** What the label says; a slip of unit is refused: no such supply has a 5 kV rail. */
const labelPlateSchema = strictObject({
  inputVoltsLow: nullableBetween(5, 500),
  inputVoltsHigh: nullableBetween(5, 500),
  inputAmps: nullableBetween(0.001, 50),
  rails: array()
    .of(
      strictObject({
        name: nullableText(40),
        volts: nullableBetween(-boardLimits.railVolts, boardLimits.railVolts),
        amps: nullablePositive(boardLimits.railAmps),
      }).required(),
    )
    .max(12)
    .required(),
  /** Of all outputs together. */
  outputWatts: nullableBetween(0.1, 5000).optional(),
  /** Of some outputs together, by their names or volts as printed. */
  combined: array()
    .of(strictObject({ rails: nullableText(80), watts: nullableBetween(0.1, 5000) }).required())
    .max(6)
    .default(undefined)
    .optional(),
  plugPolarity: nullableWord<PlugPolarity>(plugPolarities),
  plugNote: nullableText(80),
  temperatureLimitCelsius: nullableBetween(-40, 150),
});
export type LabelPlate = InferType<typeof labelPlateSchema>;

/** What the unit must do afterwards, beside its rails: those are the board's own. */
const purposeSchema = strictObject({
  hoursPerDay: nullableBetween(0, 24),
  standbyHoursPerDay: nullableBetween(0, 24),
  ambientCelsius: nullableBetween(-40, 80),
  isEnclosed: boolean().nullable().defined(),
}).test("day", fault("day_too_long"), ({ hoursPerDay, standbyHoursPerDay }) => {
  return (hoursPerDay ?? 0) + (standbyHoursPerDay ?? 0) <= 24;
});

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
    outputLead: checkField().optional(),
    lamps: checkField().optional(),
    rangeSwitch: checkField().optional(),
  }).required(),
  economics: strictObject({
    labourMinutes: nullableBetween(0, 6000),
    partsMinor: moneyField(),
    replacementMinor: moneyField(),
  }).required(),
  labelPlate: labelPlateSchema.required(),
  topology: nullableWord<Topology>(topologies),
  /** What feeds the unit in use; left out: the shop's mains. */
  feed: strictObject({ kind: nullableWord<FeedKind>(feedKinds), volts: nullableBetween(1, 500) }).optional(),
  /** No repair: a unit in good order, measured so that others of its board type can be held against it. */
  isKnownGood: boolean().required(),
  purpose: purposeSchema.required(),
  /** What the customer was told it would cost, and what the customer said. */
  quote: strictObject({
    quotedMinor: moneyField(),
    quotedAt: nullableInstant(),
    answer: nullableWord<QuoteAnswer>(quoteAnswers),
  }).required(),
});
export type IntakeDetails = InferType<typeof intakeDetailsSchema>;

export const noIntakeDetails: IntakeDetails = {
  asReceived: { outputVolts: null, inputWatts: null, lights: null, sound: null },
  supplyChecks: { swap: null, benchFeed: null, leadAndFuse: null, rearSwitch: null },
  economics: { labourMinutes: null, partsMinor: null, replacementMinor: null },
  labelPlate: {
    inputVoltsLow: null,
    inputVoltsHigh: null,
    inputAmps: null,
    rails: [],
    plugPolarity: null,
    plugNote: null,
    temperatureLimitCelsius: null,
  },
  topology: null,
  feed: { kind: null, volts: null },
  isKnownGood: false,
  purpose: { hoursPerDay: null, standbyHoursPerDay: null, ambientCelsius: null, isEnclosed: null },
  quote: { quotedMinor: null, quotedAt: null, answer: null },
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
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewAcceptance = InferType<typeof acceptanceSchema>;
export type Acceptance = NewAcceptance & StoredFact;

/** Closes a job; the judgement that stood then is kept with it. */
export const handOverSchema = strictObject({
  id: idField(),
  version: versionField(),
  handedOverAt: instantField(),
  warrantyMonths: finiteNumber().integer().min(0).max(120).required(),
  /** What the repair took; later estimates for the kind are made from it. */
  spentMinutes: nullableBetween(0, 6000),
  note: nullableText(4000),
  isReopened: boolean().required(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type HandOver = InferType<typeof handOverSchema>;

/** Why a unit came back after it was handed over. */
export const comebackKinds = ["same_fault", "another_fault", "handling", "no_fault_found"] as const;
export type ComebackKind = (typeof comebackKinds)[number];

/** Where a job came from that another shop made. */
export interface JobOrigin {
  readonly shop: string;
  readonly number: number;
  readonly importedAt: string;
}

/** A job as intake stores it. */
export interface Job extends Intake {
  readonly id: string;
  readonly number: number;
  readonly realm: Realm;
  /** Simulated instruments may read here: a practice job, and the demo's own. */
  readonly takesSimulated: boolean;
  readonly version: number;
  readonly createdAt: string;
  readonly handedOverAt: string | null;
  readonly warrantyUntil: string | null;
  readonly handOverNote: string | null;
  readonly spentMinutes: number | null;
  readonly jobFamilyId: string | null;
  /** The summary of the verdict as a person wrote it; null: as the model makes it. */
  readonly verdictSummary: string | null;
  /** The job that the unit was handed over with before; null: it never came back. */
  readonly comebackOf: string | null;
  readonly comebackKind: ComebackKind | null;
  readonly origin: JobOrigin | null;
  /** When its customer was erased; null: no such thing was asked for. */
  readonly customerErasedAt: string | null;
}

/** What left the shop's program in a file, told so that it can be traced. */
const exportKinds = ["positions_csv", "netlist", "capture_csv", "ripple_png", "report", "bundle"] as const;
export type ExportKind = (typeof exportKinds)[number];
export const exportSchema = strictObject({
  id: idField(),
  what: wordField<ExportKind>(exportKinds),
  personId: nullableId(),
});
