import { createHash } from "node:crypto";
import type { Scope } from "../database/scope";
import { HttpProblem } from "./problems";

/** One write as the client sent it. */
export interface ClientWrite {
  readonly id: string;
  /** Route and address: the same id may not travel to another place. */
  readonly kind: string;
  readonly jobId: string | null;
  readonly body: unknown;
  readonly bytes: Buffer | null;
}

/**
 * Does a write once. The same id with the same body returns what is stored, with a different body it is refused. The
 * claim on the id and the write are one transaction, so a crash in between leaves neither.
 */
export async function writeOnce<T>(
  scope: Scope,
  client: ClientWrite,
  does: {
    readonly write: () => Promise<void>;
    /** Loads what is stored, the first time and for a retry. */
    readonly answer: () => Promise<T>;
  },
): Promise<{ readonly isNew: boolean; readonly result: T }> {
  const hash = bodyHash(client);
  const claimed = await scope.sql(
    `INSERT INTO accepted_writes (id, kind, body_sha256, received_at, person_id, role, bench_id, job_id)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8) ON CONFLICT (id) DO NOTHING RETURNING id`,
    [client.id, client.kind, hash, scope.now, scope.personId, scope.role, scope.benchId, client.jobId],
  );
  const isNew = claimed.length > 0;
  if (isNew) await does.write();
  else {
    const before = await scope.rows.acceptedWrites.first({ id: client.id });
    if (before?.kind !== client.kind || before.bodySha256 !== hash) {
      throw new HttpProblem("id_reused", "This id already stands for a different entry. Nothing was changed.");
    }
  }
  return { isNew, result: await does.answer() };
}

/** JSON with sorted keys, then the file: the order in which a client writes its fields does not make another body. */
function bodyHash({ body, bytes }: ClientWrite): string {
  const hash = createHash("sha256").update(canonical(body));
  return (bytes ? hash.update(bytes) : hash).digest("hex");
}

function canonical(value: unknown): string {
  return JSON.stringify(value, (_key, inner: unknown) =>
    typeof inner === "object" && inner !== null && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
}
