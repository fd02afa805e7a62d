import type { PhotoKind, PhotoMark } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** A picture of a job; the pixels are blobs, addressed by hash. */
export interface PhotoDbRow {
  id: string;
  jobId: string;
  version: number;
  kind: PhotoKind;
  caption: string | null;
  marks: readonly PhotoMark[];
  isRemoved: boolean;
  imageSha256: string;
  thumbnailSha256: string;
  widthPixels: number;
  heightPixels: number;
  takenAt: Date;
  personId: string | null;
}

export const photos = (sequelize: Sequelize) =>
  defineTable<PhotoDbRow>(sequelize, "photos", {
    id: column.key,
    jobId: column.id,
    version: column.whole,
    kind: column.text,
    caption: column.text,
    marks: column.json,
    isRemoved: column.flag,
    imageSha256: column.text,
    thumbnailSha256: column.text,
    widthPixels: column.whole,
    heightPixels: column.whole,
    takenAt: column.moment,
    personId: column.id,
  });
