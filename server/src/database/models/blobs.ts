import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Bytes that are kept, addressed by their hash; the same picture is stored once. */
export interface BlobRow {
  sha256: string;
  mediaType: string;
  sizeBytes: number;
  createdAt: Date;
}

export const blobs = (sequelize: Sequelize) =>
  defineTable<BlobRow>(sequelize, "blobs", {
    sha256: column.textKey,
    mediaType: column.text,
    sizeBytes: column.whole,
    createdAt: column.moment,
  });
