import type { InferType } from "yup";
import { idField, nullableId, strictObject } from "../fields/fields";

/** A customer's name, contact and words go for good. */
export const erasureSchema = strictObject({ id: idField(), customerId: idField(), personId: nullableId() });
export type Erasure = InferType<typeof erasureSchema>;

/** Whose job it is, as far as an erasure needs it. */
export interface CustomerState {
  /** null: nobody is noted with the job. */
  readonly customerId: string | null;
  readonly erasedAt: string | null;
  /** All jobs of this customer. */
  readonly jobNumbers: readonly number[];
  readonly photoCount: number;
  /** When each backup was taken that still holds the name. */
  readonly backupsAt: readonly string[];
}
