import type { ClosedJob, FamilyFinding } from "@pale-cap/core";
import type { InferType } from "yup";
import { array, idField, nullableText, strictObject, textField } from "../fields/fields";

/** More units like this one: each becomes a job of its own with a copy of the device and the board, without readings. */
export const newUnitsSchema = strictObject({
  id: idField(),
  familyName: textField(80),
  units: array()
    .of(strictObject({ id: idField(), serial: nullableText(80) }).required())
    .min(1)
    .max(40)
    .required(),
});
export type NewUnits = InferType<typeof newUnitsSchema>;

/** The family of a job, and what the other units mean for it. */
export interface Family {
  readonly name: string | null;
  readonly units: readonly {
    readonly id: string;
    readonly number: number;
    readonly serial: string | null;
    readonly handedOverAt: string | null;
  }[];
  readonly findings: readonly FamilyFinding[];
}

/** What the shop's own closed jobs of the same kind took. */
export type ClosedJobs = readonly ClosedJob[];
