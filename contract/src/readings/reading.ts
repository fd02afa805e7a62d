import {
  type CircuitState,
  type CoarseCode,
  circuitStates,
  coarseCodesOf,
  mayReadOpen,
  observations,
  overRangeCode,
  type QuantityKind,
  quantities,
  readingRanges,
  type SignState,
  type TargetKind,
  targetKinds,
  testerBands,
  type VisualSign,
  visualSigns,
} from "@pale-cap/core";
import type { InferType } from "yup";
import type { StoredFact } from "../facts/clock";
import { fault } from "../faults";
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

/** What was falsified or limited by the way of measuring. */
const rigSchema = strictObject({
  isIsolationTransformer: boolean().required(),
  isSeriesLamp: boolean().required(),
  isElectronicLimiter: boolean().required(),
  areLeadsZeroed: boolean().required(),
  isDrainOn: boolean().optional(),
  isCaseClosed: boolean().optional(),
  measuredAt: nullableText(40),
  /** A home-made leakage test: the known voltage and the resistor in series. */
  testVolts: nullablePositive(1000).optional(),
  seriesOhms: nullablePositive(100e6).optional(),
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
    .when(["quantity", "isWithdrawn", "coarseCode"], ([quantity, isWithdrawn, coarseCode], schema) => {
      if (isWithdrawn) return schema;
      if (coarseCodesOf(quantity as QuantityKind)) {
        return schema.test("none", fault("value_beside_word"), (value) => value === null);
      }
      // Open instead of a number.
      if (coarseCode === overRangeCode)
        return schema.test("none", fault("value_beside_word"), (value) => value === null);
      if (typeof quantity !== "string" || !Object.hasOwn(readingRanges, quantity)) return schema;
      const { least, most } = readingRanges[quantity as QuantityKind];
      return schema.nonNullable().min(least).max(most);
    }),
  coarseCode: nullableWord<CoarseCode>([...testerBands, ...observations, overRangeCode]).when(
    ["quantity", "isWithdrawn"],
    ([quantity, isWithdrawn], schema) =>
      isWithdrawn
        ? schema
        : schema.test("fits", fault("word_of_other_quantity"), (code) => {
            const codes = coarseCodesOf(quantity as QuantityKind);
            if (codes) return code != null && codes.includes(code);
            return code === null || (code === overRangeCode && mayReadOpen(quantity as QuantityKind));
          }),
  ),
  terminals: nullableText(40),
  uncertainty: nullablePositive(1e6),
  circuitState: nullableWord<CircuitState>(circuitStates),
  frequencyHertz: nullablePositive(10e6),
  temperatureCelsius: nullableBetween(-60, 300),
  isPowered: boolean().required(),
  loadAmps: nullableBetween(0, 500),
  rig: rigSchema.required(),
  rawText: nullableText(80),
  instrument: nullableText(80),
  /** Read by a simulated instrument: never in a customer's job. */
  isSimulated: boolean().optional(),
  isWithdrawn: boolean().required(),
  supersedesId: nullableId(),
  measuredAt: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type ReadingRow = InferType<typeof readingSchema> & StoredFact & { readonly isSimulated: boolean };
export type NewReading = InferType<typeof readingSchema>;

/** What was seen: on a capacitor that was found there, or on another part by its place. */
export const signsSchema = strictObject({
  id: idField(),
  fittedPartId: nullableId(),
  positionId: nullableId()
    .optional()
    .when("fittedPartId", ([fittedPartId], schema) =>
      schema.test(
        "one",
        fault(fittedPartId ? "must_stay_empty" : "needed"),
        (value) => (value != null) !== (fittedPartId != null),
      ),
    ),
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
  clockId: nullableId(),
  personId: nullableId(),
});

export interface SignRow extends StoredFact {
  readonly id: string;
  readonly fittedPartId: string | null;
  readonly positionId: string | null;
  readonly sign: VisualSign;
  readonly state: SignState;
  readonly observedAt: string;
}
