import { createHash } from "node:crypto";
import { QueryTypes, type Transaction } from "sequelize";
import type { Database } from "../database/database";
import { HttpProblem } from "./problems";

/** One write as the client sent it. */
export interface ClientWrite {
  readonly id: string;
  /** Route and address: the same id may not travel to another place. */
  readonly kind: string;
  readonly body: unknown;
}

/**
 * Does a write once. The same id with the same body returns what is stored, with a different body it is refused. The
 * claim on the id and the write are one transaction, so a crash in between leaves neither.
 *
 * @param write does the work
 * @param read loads what the first time had stored, for a retry
 */
export async function writeOnce<T>(
  database: Database,
  now: () => Date,
  client: ClientWrite,
  write: (transaction: Transaction) => Promise<T>,
  read: (transaction: Transaction) => Promise<T>,
): Promise<{ readonly isNew: boolean; readonly result: T }> {
  const hash = createHash("sha256").update(canonical(client.body)).digest("hex");
  return database.sequelize.transaction(async (transaction) => {
    const claimed = await database.sequelize.query(
      `INSERT INTO accepted_writes (id, kind, body_sha256, received_at) VALUES ($1, $2, $3, $4)
       ON CONFLICT (id) DO NOTHING RETURNING id`,
      { bind: [client.id, client.kind, hash, now()], transaction, type: QueryTypes.SELECT },
    );
    if (claimed.length > 0) return { isNew: true, result: await write(transaction) };
    const before = await database.models.acceptedWrites.findByPk(client.id, { transaction, raw: true });
    const row = before as unknown as { kind: string; bodySha256: string } | null;
    if (row?.kind !== client.kind || row.bodySha256 !== hash) {
      throw new HttpProblem("id_reused", "This id already stands for a different entry. Nothing was changed.");
    }
    return { isNew: false, result: await read(transaction) };
  });
}

/** JSON with sorted keys: the order in which a client writes its fields does not make a different body. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_key, inner: unknown) =>
    typeof inner === "object" && inner !== null && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
}
