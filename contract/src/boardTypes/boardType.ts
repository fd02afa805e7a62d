import type { BoardDifference } from "@pale-cap/core";
import type { InferType } from "yup";
import { fault } from "../faults";
import {
  array,
  idField,
  nullableBetween,
  nullableId,
  nullableText,
  strictObject,
  textField,
  versionField,
  wordField,
} from "../fields/fields";

/** Keeps a job's board as a new type, or as the next revision of one. A name is needed for a new type only. */
export const saveBoardTypeSchema = strictObject({
  id: idField(),
  /** Which board of the unit; the first where none is said. */
  boardId: nullableId().optional(),
  boardTypeId: nullableId(),
  name: nullableText(80).when("boardTypeId", ([boardTypeId], schema) =>
    boardTypeId === null ? schema.nonNullable(fault("needed")).trim().min(1, fault("needed")) : schema,
  ),
});
export type SaveBoardType = InferType<typeof saveBoardTypeSchema>;

/** What a pin of the connector is for, when the board runs outside its set. */
export const pinRoles = ["output", "ground", "enable", "sense", "other"] as const;
export type PinRole = (typeof pinRoles)[number];

/** How a kind of board is run on the bench: its connector pin by pin, what tells it to run, the load it needs. */
const benchNotesSchema = strictObject({
  pins: array()
    .of(
      strictObject({
        pin: textField(12),
        name: textField(40),
        role: wordField<PinRole>(pinRoles),
        /** What it carries, or what an enable pin wants. */
        volts: nullableBetween(-1000, 1000),
        /** The load without which it does not regulate. */
        leastAmps: nullableBetween(0, 200),
      }).required(),
    )
    .max(60)
    .required(),
  note: nullableText(500),
});
export type BenchNotes = InferType<typeof benchNotesSchema>;
export const benchNotesEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  benchNotes: benchNotesSchema.required(),
});

/** The papers of a kind of board. */
export const attachmentKinds = ["service_manual", "ic_sheet", "schematic", "other"] as const;
export type AttachmentKind = (typeof attachmentKinds)[number];
export const attachmentLimits = { uploadBytes: 30 * 1024 * 1024 } as const;
export const newAttachmentSchema = strictObject({
  id: idField(),
  kind: wordField<AttachmentKind>(attachmentKinds),
  name: textField(120),
});

export interface Attachment {
  readonly id: string;
  readonly kind: AttachmentKind;
  readonly name: string;
  readonly mediaType: string;
  readonly sizeBytes: number;
  readonly version: number;
}

/** What is kept with a board type beside its revisions. */
export interface BoardTypePapers {
  readonly boardTypeId: string;
  readonly version: number;
  readonly benchNotes: BenchNotes;
  readonly attachments: readonly Attachment[];
}

/** Fills an empty board from a revision. */
export const takeBoardTypeSchema = strictObject({
  id: idField(),
  /** Which board of the unit; the first where none is said. */
  boardId: nullableId().optional(),
  revisionId: idField(),
});
export type TakeBoardType = InferType<typeof takeBoardTypeSchema>;

/** Asks for the type of one board of the unit; of the first where none is said. */
export const boardTypeQuerySchema = strictObject({ board: nullableId() });

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
