import { type JobActKind, jobActKinds, jobActNeeds, jobActWords, numbersOf } from "@pale-cap/core";
import type { InferType } from "yup";
import type { StoredFact } from "../facts/clock";
import { fault } from "../faults";
import {
  array,
  finiteNumber,
  idField,
  instantField,
  nullableBetween,
  nullableId,
  nullableText,
  strictObject,
  wordField,
} from "../fields/fields";

/** Something done or decided on a job; append-only, what was stored last of a kind and subject stands. */
export const jobActSchema = strictObject({
  id: idField(),
  kind: wordField<JobActKind>(jobActKinds),
  subjectId: nullableId(),
  word: nullableText(40).when("kind", ([kind], schema) => {
    const words = jobActWords[kind as JobActKind];
    return schema.test("word", fault("not_known_word"), (word) => {
      if (!words) return word === null;
      return word != null && words.includes(word);
    });
  }),
  note: nullableText(500).when("kind", ([kind], schema) =>
    jobActNeeds[kind as JobActKind] === "note"
      ? schema.test("needed", fault("needed"), (note) => note != null && note.trim() !== "")
      : schema,
  ),
  /** In the unit of its kind; absent or null where it has none. */
  value: nullableBetween(0, 1e12)
    .optional()
    .when("kind", ([kind], schema) =>
      jobActNeeds[kind as JobActKind] === "value"
        ? schema.test("needed", fault("needed"), (value) => value != null)
        : schema,
    ),
  /** As many as its kind has; absent or null where it has none. */
  numbers: array()
    .of(finiteNumber().min(-1e6).max(1e12).required())
    .nullable()
    .default(undefined)
    .optional()
    .when("kind", ([kind], schema) => {
      const counts = numbersOf[kind as JobActKind] ?? [0];
      return schema.test("needed", fault("needed"), (numbers) => counts.includes(numbers?.length ?? 0));
    }),
  photoId: nullableId().optional(),
  at: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewJobAct = InferType<typeof jobActSchema>;
export type JobActRow = NewJobAct & StoredFact;
