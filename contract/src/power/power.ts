import { type PowerEventKind, powerEventKinds } from "@pale-cap/core";
import type { InferType } from "yup";
import type { StoredFact } from "../facts/clock";
import { fault } from "../faults";
import {
  boolean,
  finiteNumber,
  idField,
  instantField,
  nullableId,
  nullableText,
  strictObject,
  wordField,
} from "../fields/fields";

/** A fuse that blew, a breaker that tripped, a short test, or a gate that was overruled with a reason. Append-only. */
export const powerEventSchema = strictObject({
  id: idField(),
  kind: wordField<PowerEventKind>(powerEventKinds),
  resistanceOhms: finiteNumber().min(0).max(100e6).nullable().defined(),
  hasShort: boolean()
    .nullable()
    .defined()
    .when("kind", ([kind], schema) => (kind === "short_test" ? schema.nonNullable(fault("needed")) : schema)),
  note: nullableText(300).when("kind", ([kind], schema) =>
    kind === "gate_overruled" ? schema.nonNullable(fault("needed")).trim().min(3, fault("reason_needed")) : schema,
  ),
  at: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewPowerEvent = InferType<typeof powerEventSchema>;
export type PowerEventRow = NewPowerEvent & StoredFact;
