import {
  type GateItem,
  type GateReason,
  type GateValue,
  gateFinding,
  gateItems,
  gateReasons,
  type PowerEventKind,
  type PowerSign,
  powerEventKinds,
  powerSigns,
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
  mixed,
  nullableId,
  nullableText,
  strictObject,
  wordField,
} from "../fields/fields";

const mostOhms = 2e9;
const isGateValue = (value: unknown): value is GateValue =>
  value === "open" || (typeof value === "number" && Number.isFinite(value) && value >= 0 && value <= mostOhms);

const rigSchema = strictObject({
  isIsolationTransformer: boolean().required(),
  isSeriesLamp: boolean().required(),
  isElectronicLimiter: boolean().required(),
});

/**
 * What tripped, what was tested before power, how the first power-up went, or a gate that was overruled with a reason.
 * Append-only. A test whose number contradicts its tick is refused. What came later than the first jobs may be left out.
 */
export const powerEventSchema = strictObject({
  id: idField(),
  kind: wordField<PowerEventKind>(powerEventKinds),
  resistanceOhms: finiteNumber().min(0).max(100e6).nullable().defined(),
  hasShort: boolean()
    .nullable()
    .defined()
    .when("kind", ([kind], schema) =>
      kind === "short_test" || kind === "gate_check" ? schema.nonNullable(fault("needed")) : schema,
    ),
  item: wordField<GateItem>(gateItems)
    .nullable()
    .optional()
    .when("kind", ([kind], schema) =>
      kind === "gate_check" ? schema.test("needed", fault("needed"), (item) => item != null) : schema,
    ),
  subjectId: nullableId().optional(),
  values: array()
    .of(
      mixed<GateValue>()
        .required()
        .test("value", fault("not_valid"), (value) => isGateValue(value)),
    )
    .max(4)
    .optional()
    .when(["item", "hasShort", "reason"], ([item, hasShort, reason], schema) =>
      schema.test("agrees", fault("contradicts_tick"), (values) => {
        if (item == null || hasShort !== false || !values?.every(isGateValue)) return true;
        return gateFinding(item as GateItem, values, reason != null) !== "contradicts";
      }),
    ),
  reason: wordField<GateReason>(gateReasons).nullable().optional(),
  rig: rigSchema.nullable().optional(),
  sign: wordField<PowerSign>(powerSigns)
    .nullable()
    .optional()
    .when("kind", ([kind], schema) =>
      kind === "first_power" ? schema.test("needed", fault("needed"), (sign) => sign != null) : schema,
    ),
  note: nullableText(300).when("kind", ([kind], schema) =>
    kind === "gate_overruled" ? schema.nonNullable(fault("needed")).trim().min(3, fault("reason_needed")) : schema,
  ),
  at: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewPowerEvent = InferType<typeof powerEventSchema>;

/** What was tested and how it went, with nothing left out. */
export const testedAs = ({ item, subjectId, values, reason, rig, sign }: NewPowerEvent) => ({
  item: item ?? null,
  subjectId: subjectId ?? null,
  values: (values ?? []) as readonly GateValue[],
  reason: reason ?? null,
  rig: rig ?? null,
  sign: sign ?? null,
});
type Tested = ReturnType<typeof testedAs>;
export type PowerEventRow = Omit<NewPowerEvent, keyof Tested> & StoredFact & Tested;
