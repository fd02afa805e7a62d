import type { Database } from "../database/database";
import { noCaller } from "../database/scope";

/** Who may speak on a line, or drive a run: one process of the server at a time. */
export interface LineLeases {
  /** Keeps asking for these until told otherwise. */
  want(subjectIds: readonly string[]): Promise<void>;
  isMine(subjectId: string): boolean;
  /** Nothing of it is wanted any more: somebody else may have it at once. */
  drop(subjectIds: readonly string[]): Promise<void>;
  close(): Promise<void>;
}

/** Where there is one process, and nobody to share with. */
export const everyLine: LineLeases = {
  want: async () => undefined,
  isMine: () => true,
  drop: async () => undefined,
  close: async () => undefined,
};

const leaseSeconds = 10;
const renewMilliseconds = 2500;

/**
 * Leases in the database, by its clock: taken where nobody holds one or its time is over, renewed while this process lives. What
 * could not be renewed in time counts as lost here before anybody else can take it.
 */
export class StoredLeases implements LineLeases {
  private readonly wanted = new Set<string>();
  /** Until when, by this process's own running time. */
  private readonly heldUntil = new Map<string, number>();
  private readonly timer: NodeJS.Timeout;
  private work: Promise<void> = Promise.resolve();

  /** @param holder this process */
  constructor(
    private readonly database: Database,
    private readonly holder: string,
  ) {
    this.timer = setInterval(() => void this.renew().catch(() => undefined), renewMilliseconds);
    this.timer.unref();
  }

  async want(subjectIds: readonly string[]): Promise<void> {
    for (const id of subjectIds) this.wanted.add(id);
    if (subjectIds.some((id) => !this.isMine(id))) await this.renew();
  }

  isMine(subjectId: string): boolean {
    return (this.heldUntil.get(subjectId) ?? 0) > performance.now();
  }

  async drop(subjectIds: readonly string[]): Promise<void> {
    for (const id of subjectIds) {
      this.wanted.delete(id);
      this.heldUntil.delete(id);
    }
    await this.inTurn(() =>
      this.database.write(new Date(), noCaller, ({ sql }) =>
        sql("DELETE FROM leases WHERE holder = $1 AND subject_id = ANY($2::uuid[]) RETURNING subject_id", [
          this.holder,
          [...subjectIds],
        ]).then(() => undefined),
      ),
    );
  }

  async close(): Promise<void> {
    clearInterval(this.timer);
    this.wanted.clear();
    const held = [...this.heldUntil.keys()];
    if (held.length > 0) await this.drop(held).catch(() => undefined);
  }

  private renew(): Promise<void> {
    return this.inTurn(async () => {
      const ids = [...this.wanted].sort();
      if (ids.length === 0) return;
      // Counted from before the question: what the database grants ends later than what is believed here.
      const until = performance.now() + leaseSeconds * 1000 * 0.9;
      const held = await this.database.write(new Date(), noCaller, ({ sql }) =>
        sql<{ subject_id: string }>(
          `INSERT INTO leases (subject_id, holder, until)
           SELECT id, $1, clock_timestamp() + make_interval(secs => $3) FROM unnest($2::uuid[]) AS id
           ON CONFLICT (subject_id) DO UPDATE SET holder = EXCLUDED.holder, until = EXCLUDED.until
             WHERE leases.holder = EXCLUDED.holder OR leases.until < clock_timestamp()
           RETURNING subject_id`,
          [this.holder, ids, leaseSeconds],
        ),
      );
      const mine = new Set(held.map((one) => one.subject_id));
      for (const id of ids) {
        if (mine.has(id) && this.wanted.has(id)) this.heldUntil.set(id, until);
        else this.heldUntil.delete(id);
      }
    });
  }

  private inTurn(work: () => Promise<void>): Promise<void> {
    const next = this.work.then(work);
    this.work = next.catch(() => undefined);
    return next;
  }
}
