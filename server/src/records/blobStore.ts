import { createHash } from "node:crypto";
import type { Transaction } from "sequelize";
import type { Database } from "../database/database";
import type { BlobChunkRow } from "../database/models/blobChunks";
import type { BlobRow } from "../database/models/blobs";

/** Rows of this size keep any one query small. */
const chunkBytes = 256 * 1024;

/** Stores bytes under their hash; what is there already is left as it is. */
export async function saveBlob(
  { models }: Database,
  blob: { readonly bytes: Buffer; readonly mediaType: string; readonly createdAt: Date },
  transaction: Transaction,
): Promise<string> {
  const { bytes, mediaType, createdAt } = blob;
  const sha256 = createHash("sha256").update(bytes).digest("hex");
  const [, isNew] = await models.blobs.findOrCreate({
    where: { sha256 },
    defaults: { sha256, mediaType, sizeBytes: bytes.length, createdAt },
    transaction,
  });
  if (!isNew) return sha256;
  for (let number = 0; number * chunkBytes < bytes.length; number++) {
    const content = bytes.subarray(number * chunkBytes, (number + 1) * chunkBytes);
    await models.blobChunks.create({ sha256, number, content }, { transaction });
  }
  return sha256;
}

export async function findBlob({ models }: Database, sha256: string): Promise<BlobRow | null> {
  return (await models.blobs.findByPk(sha256, { raw: true })) as unknown as BlobRow | null;
}

/** The bytes chunk by chunk: no picture is ever whole in memory. */
export async function* blobChunks({ models }: Database, { sha256, sizeBytes }: BlobRow): AsyncGenerator<Buffer> {
  for (let number = 0; number * chunkBytes < sizeBytes; number++) {
    const row = await models.blobChunks.findOne({ where: { sha256, number }, raw: true });
    yield (row as unknown as BlobChunkRow).content;
  }
}
