import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface BlobChunkRow {
  sha256: string;
  number: number;
  content: Buffer;
}

export const blobChunks = (sequelize: Sequelize) =>
  defineTable<BlobChunkRow>(sequelize, "blob_chunks", {
    sha256: column.textKey,
    number: column.wholeKey,
    content: column.bytes,
  });
