import { type TeardownKind, teardownKinds } from "@pale-cap/core";
import type { InferType } from "yup";
import type { StoredFact } from "../facts/clock";
import {
  boolean,
  idField,
  instantField,
  nullableId,
  nullableText,
  number,
  strictObject,
  versionField,
  wordField,
} from "../fields/fields";

const stepValues = {
  kind: wordField<TeardownKind>(teardownKinds),
  /** How many came out; 1 for a cable, a seam or a sheet. */
  count: number().integer().min(1).max(200).required(),
  size: nullableText(40),
  place: nullableText(120),
  photoId: nullableId(),
};

/** One step of taking apart; its number in the order of doing is given by the server. */
export const newTeardownStepSchema = strictObject({
  id: idField(),
  ...stepValues,
  doneAt: instantField(),
  personId: nullableId(),
});
export type NewTeardownStep = InferType<typeof newTeardownStepSchema>;

export const teardownStepEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  values: strictObject({ ...stepValues, isRemoved: boolean().required() }).required(),
});
export type TeardownStepEdit = InferType<typeof teardownStepEditSchema>;

export interface TeardownStepRow {
  readonly id: string;
  readonly version: number;
  readonly number: number;
  readonly kind: TeardownKind;
  readonly count: number;
  readonly size: string | null;
  readonly place: string | null;
  readonly photoId: string | null;
  readonly doneAt: string;
}

/** What went back in at a step; append-only, the latest stands. */
export const teardownReturnSchema = strictObject({
  id: idField(),
  stepId: idField(),
  countIn: number().integer().min(0).max(200).required(),
  at: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewTeardownReturn = InferType<typeof teardownReturnSchema>;
export type TeardownReturnRow = NewTeardownReturn & StoredFact;
