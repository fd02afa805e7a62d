import type { Outcome } from "@pale-cap/core";
import type { InferType } from "yup";
import { idField, nullableId, nullableWord, strictObject, versionField } from "../fields/fields";
import { type ComebackKind, comebackKinds } from "../jobs/job";

/** Of which earlier job a unit is the return, and why it is back as far as it is known. */
export const comebackEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  comebackOf: nullableId(),
  kind: nullableWord<ComebackKind>(comebackKinds),
});
export type ComebackEdit = InferType<typeof comebackEditSchema>;

/** A job that was handed over and may be the same unit's. */
export interface JobAlike {
  readonly id: string;
  readonly number: number;
  readonly handedOverAt: string;
  readonly warrantyUntil: string | null;
  readonly isSameSerial: boolean;
}

/** What the earlier job says to whoever has its unit on the bench again. */
export interface FormerJob extends Omit<JobAlike, "isSameSerial"> {
  readonly outcome: Outcome;
  readonly complaint: string | null;
  readonly summary: string | null;
  /** What went in, and what the warranty covers with the same fault. */
  readonly replaced: readonly string[];
  /** Parts that read bad or worn then, with their verdict. */
  readonly bad: readonly string[];
  /** Rails as they were proved, a sentence each. */
  readonly proved: readonly string[];
  /** What was left open, and why that was accepted. */
  readonly left: readonly string[];
}

export interface FormerJobs {
  readonly linked: FormerJob | null;
  /** By serial or customer; none of them is the linked one. */
  readonly alike: readonly JobAlike[];
}
