import {
  type CircuitState,
  circuitStates,
  type QuantityKind,
  quantities,
  type SignState,
  type TargetKind,
  targetKinds,
  type VisualSign,
  visualSigns,
} from "@pale-cap/core";
import type { InferType } from "yup";
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
  nullableWord,
  strictObject,
  wordField,
} from "../fields/fields";

/** Largest value that can be meant, by quantity; smallest is 0 except for voltages. */
export const readingLimits: Readonly<Record<QuantityKind, readonly [number, number]>> = {
  esr: [0, 1e6],
  capacitance: [0, 10],
  dc_voltage: [-2000, 2000],
  ripple_voltage: [0, 500],
  voltage_loss: [0, 1],
  resistance: [0, 100e6],
};

/** What was falsified or limited by the way of measuring. */
export const rigSchema = strictObject({
  isIsolationTransformer: boolean().required(),
  isSeriesLamp: boolean().required(),
  isElectronicLimiter: boolean().required(),
  areLeadsZeroed: boolean().required(),
  measuredAt: nullableText(40),
});

/** A reading as logged: append-only; a correction or a withdrawal supersedes. */
export const readingSchema = strictObject({
  id: idField(),
  targetKind: wordField<TargetKind>(targetKinds),
  targetId: idField(),
  fittedPartId: nullableId(),
  quantity: wordField<QuantityKind>(quantities),
  value: finiteNumber()
    .nullable()
    .defined()
    .when(["quantity", "isWithdrawn"], ([quantity, isWithdrawn], schema) => {
      if (isWithdrawn) return schema;
      const [least, most] = readingLimits[quantity as QuantityKind] ?? [0, 0];
      return schema.nonNullable().min(least).max(most);
    }),
  uncertainty: nullablePositive(1e6),
  circuitState: nullableWord<CircuitState>(circuitStates),
  frequencyHertz: nullablePositive(10e6),
  temperatureCelsius: nullableBetween(-60, 300),
  isPowered: boolean().required(),
  loadAmps: nullableBetween(0, 500),
  rig: rigSchema.required(),
  rawText: nullableText(80),
  instrument: nullableText(80),
  isWithdrawn: boolean().required(),
  supersedesId: nullableId(),
  measuredAt: instantField(),
  personId: nullableId(),
});
export type ReadingRow = InferType<typeof readingSchema> & { readonly receivedAt: string };
export type NewReading = InferType<typeof readingSchema>;

export const signsSchema = strictObject({
  id: idField(),
  fittedPartId: idField(),
  observations: array()
    .of(
      strictObject({
        id: idField(),
        sign: wordField<VisualSign>(visualSigns),
        state: wordField<SignState>(["seen", "not_seen", "not_looked"]),
      }).required(),
    )
    .min(1)
    .max(40)
    .required(),
  observedAt: instantField(),
  personId: nullableId(),
});
export type NewSigns = InferType<typeof signsSchema>;

export interface SignRow {
  readonly id: string;
  readonly fittedPartId: string;
  readonly sign: VisualSign;
  readonly state: SignState;
  readonly observedAt: string;
}
