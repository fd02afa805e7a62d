import type { BoardDifference } from "@pale-cap/core";
import type { InferType } from "yup";
import { idField, nullableId, nullableText, strictObject } from "../fields/fields";

/** Keeps a job's board as a new type, or as the next revision of one. A name is needed for a new type only. */
export const saveBoardTypeSchema = strictObject({
  id: idField(),
  boardTypeId: nullableId(),
  name: nullableText(80).when("boardTypeId", ([boardTypeId], schema) =>
    boardTypeId === null ? schema.nonNullable("is needed").trim().min(1, "is needed") : schema,
  ),
});
export type SaveBoardType = InferType<typeof saveBoardTypeSchema>;

/** Fills an empty board from a revision. */
export const takeBoardTypeSchema = strictObject({ id: idField(), revisionId: idField() });
export type TakeBoardType = InferType<typeof takeBoardTypeSchema>;

/** A type that can be used, with its latest revision. */
export interface BoardTypeLine {
  readonly boardTypeId: string;
  readonly name: string;
  readonly revisionId: string;
  readonly revisionNumber: number;
  readonly partCount: number;
}

/** The type a job's board came from, and what is other here; null without one. */
export interface BoardTypeOfJob {
  readonly boardTypeId: string;
  readonly name: string;
  readonly revisionNumber: number;
  readonly latestNumber: number;
  readonly differences: readonly BoardDifference[];
}
