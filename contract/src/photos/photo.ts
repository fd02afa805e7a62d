import type { InferType } from "yup";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  instantField,
  nullableBetween,
  nullableId,
  nullableText,
  strictObject,
  versionField,
  wordField,
} from "../fields/fields";

export const photoKinds = ["label", "board_top", "board_bottom", "connectors", "opening", "other"] as const;
export type PhotoKind = (typeof photoKinds)[number];

/** What is taken as a picture, and how much of it. Stored smaller: the longest side is cut down. */
export const photoLimits = {
  mediaTypes: ["image/jpeg", "image/png", "image/webp"],
  uploadBytes: 15 * 1024 * 1024,
  uploadPixels: 60e6,
  storedSidePixels: 2400,
  thumbnailSidePixels: 320,
} as const;

/** A pen mark on a photo, in shares of its width and height, so that it stays where it was at any size. */
const photoMarkSchema = strictObject({
  id: idField(),
  kind: wordField(["dot", "arrow", "text"] as const),
  x: finiteNumber().min(0).max(1).required(),
  y: finiteNumber().min(0).max(1).required(),
  /** Where an arrow points to. */
  toX: nullableBetween(0, 1),
  toY: nullableBetween(0, 1),
  text: nullableText(80),
});
export type PhotoMark = InferType<typeof photoMarkSchema>;

/** What travels beside the picture itself, as the form field `photo`. */
export const newPhotoSchema = strictObject({
  id: idField(),
  kind: wordField<PhotoKind>(photoKinds),
  caption: nullableText(120),
  takenAt: instantField(),
  personId: nullableId(),
});
export type NewPhoto = InferType<typeof newPhotoSchema>;

const photoValues = {
  kind: wordField<PhotoKind>(photoKinds),
  caption: nullableText(120),
  marks: array().of(photoMarkSchema.required()).max(80).required(),
  /** Taken off the job; it can be brought back. */
  isRemoved: boolean().required(),
};

export const photoEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  values: strictObject(photoValues).required(),
});
export type PhotoEdit = InferType<typeof photoEditSchema>;

export interface PhotoRow {
  readonly id: string;
  readonly version: number;
  readonly kind: PhotoKind;
  readonly caption: string | null;
  readonly marks: readonly PhotoMark[];
  readonly isRemoved: boolean;
  readonly widthPixels: number;
  readonly heightPixels: number;
  readonly takenAt: string;
}
