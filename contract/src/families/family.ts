import type { ChargeStateName, ClosedJob, FamilyFinding, FamilyPlace } from "@pale-cap/core";
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

/** Brings other units up to the first one: what is shared, never what was read, charge, polarity or proof. */
export const followStudySchema = strictObject({
  id: idField(),
  unitIds: array().of(idField()).min(1).max(60).required(),
});
export type FollowStudy = InferType<typeof followStudySchema>;

/** What of the study a unit does not have yet, or has otherwise. */
export interface BehindStudy {
  readonly complaint: boolean;
  /** Rails and places by their names. */
  readonly rails: readonly string[];
  readonly places: readonly string[];
  /** Places for which the study has chosen something else. */
  readonly choices: readonly string[];
}

export interface FamilyGridUnit {
  readonly id: string;
  readonly number: number;
  readonly serial: string | null;
  readonly handedOverAt: string | null;
  readonly isKnownGood: boolean;
  readonly chargeName: ChargeStateName;
  /** What was measured of its charge, and when, in words. */
  readonly charge: string;
  /** null on the first unit, which is the study. */
  readonly behind: BehindStudy | null;
}

/** What goes in at a place over the open units, against what is there. */
export interface FamilyNeed {
  readonly cataloguePartId: string;
  readonly label: string;
  readonly places: readonly string[];
  readonly neededCount: number;
  readonly freeCount: number;
  readonly orderedCount: number;
}

/** Units of a family side by side, the study first. */
export interface FamilyGrid {
  readonly name: string | null;
  readonly units: readonly FamilyGridUnit[];
  readonly places: readonly FamilyPlace[];
  /** What goes in, by place and unit, in the order of both; null where nothing was chosen. */
  readonly goesIn: readonly (readonly (string | null)[])[];
  readonly needs: readonly FamilyNeed[];
}

/** What the shop's own closed jobs of the same kind took. */
export type ClosedJobs = readonly ClosedJob[];
