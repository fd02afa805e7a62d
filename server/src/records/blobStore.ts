import { createHash } from "node:crypto";
import type { Database } from "../database/database";
import type { BlobRow } from "../database/models/blobs";
import type { Scope } from "../database/scope";

/** Rows of this size keep any one query small. */
const chunkBytes = 256 * 1024;

/** Stores bytes under their hash; what is there already is left as it is. */
export async function saveBlob(scope: Scope, bytes: Buffer, mediaType: string): Promise<string> {
  const sha256 = createHash("sha256").update(bytes).digest("hex");
  const made = await scope.sql(
    `INSERT INTO blobs (sha256, media_type, size_bytes, created_at) VALUES ($1, $2, $3, $4)
     ON CONFLICT (sha256) DO NOTHING RETURNING sha256`,
    [sha256, mediaType, bytes.length, scope.now],
  );
  if (made.length === 0) return sha256;
  for (let number = 0; number * chunkBytes < bytes.length; number++) {
    const content = bytes.subarray(number * chunkBytes, (number + 1) * chunkBytes);
    await scope.rows.blobChunks.insert({ sha256, number, content });
  }
  return sha256;
}

export const findBlob = (scope: Scope, sha256: string): Promise<BlobRow | null> => scope.rows.blobs.first({ sha256 });

/** The bytes chunk by chunk: no picture is ever whole in memory, and no connection is held while a slow line takes it. */
export async function* blobChunks(database: Database, { sha256, sizeBytes }: BlobRow): AsyncGenerator<Buffer> {
  for (let number = 0; number * chunkBytes < sizeBytes; number++) {
    const row = await database.read(new Date(), (scope) => scope.rows.blobChunks.first({ sha256, number }));
    if (!row) throw new Error(`Chunk ${number} of ${sha256} is not stored.`);
    yield row.content;
  }
}

/** All bytes of a blob at once, where they have to be worked on; null where it is not stored. */
export async function readBlob(scope: Scope, sha256: string): Promise<Buffer | null> {
  const blob = await findBlob(scope, sha256);
  if (!blob) return null;
  const chunks = await scope.rows.blobChunks.all({ sha256 }, [["number", "ASC"]]);
  return Buffer.concat(chunks.map((one) => one.content));
}
