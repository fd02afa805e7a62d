import type { InferType } from "yup";
import { nullableText, number, strictObject, wordField } from "../fields/fields";

/** `tag`: what must be seen before a hand reaches for the unit. */
export const jobLabelKinds = ["unit", "bag", "tag"] as const;
export type JobLabelKind = (typeof jobLabelKinds)[number];

/** So many on a sheet, three beside one another. */
export const labelsOnSheet = 21;
const placeField = () => number().integer().min(1).max(labelsOnSheet).optional().default(undefined);

/** Which label, for what in the bag, and on which place of a sheet that was begun. */
export const jobLabelQuerySchema = strictObject({
  kind: wordField<JobLabelKind>(jobLabelKinds),
  words: nullableText(80).optional(),
  place: placeField(),
});
export type JobLabelQuery = InferType<typeof jobLabelQuerySchema>;

export const drawerLabelQuerySchema = strictObject({ place: placeField() });

/** What a code of a label leads to. */
export interface CodeTarget {
  readonly jobId: string | null;
  readonly isClosed: boolean;
  /** A drawer by its name, where no job has such a number. */
  readonly drawer: string | null;
}
export const codeQuerySchema = strictObject({ code: nullableText(40).required() });
