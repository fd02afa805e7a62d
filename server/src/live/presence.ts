import type { Presence } from "@pale-cap/contract";
import type { Database } from "../database/database";
import { noCaller, type Scope } from "../database/scope";
import { presenceChannel } from "../summaries/markStale";

/** A page that was not seen for so long is gone, also where its server died with it. */
export const presentSeconds = 40;
const renewMilliseconds = 15_000;

/** Who looks at which job, kept in the database: every process knows it. */
export class Presences {
  constructor(
    private readonly database: Database,
    private readonly now: () => Date,
  ) {}

  /**
   * Somebody looks at a job, until it is called off.
   *
   * @param id of the page's stream
   */
  enter(id: string, jobId: string, personId: string, benchId: string | null): () => void {
    const keep = (isNew: boolean) =>
      this.quietly(async (scope) => {
        await scope.sql(
          `INSERT INTO presences (id, job_id, person_id, bench_id, seen_at) VALUES ($1, $2, $3, $4, $5)
           ON CONFLICT (id) DO UPDATE SET seen_at = EXCLUDED.seen_at RETURNING id`,
          [id, jobId, personId, benchId, scope.now],
        );
        if (isNew) await tell(scope, jobId);
      });
    const entering = keep(true);
    const timer = setInterval(() => void keep(false), renewMilliseconds);
    return () => {
      clearInterval(timer);
      void entering.then(() =>
        this.quietly(async (scope) => {
          await scope.sql("DELETE FROM presences WHERE id = $1 RETURNING id", [id]);
          await tell(scope, jobId);
        }),
      );
    };
  }

  /** Everybody who looks at a job now, each once. */
  of(jobId: string): Promise<readonly Presence[]> {
    return this.database.read(this.now(), (scope) =>
      scope.sql<Presence>(
        `SELECT DISTINCT ON (p.name, p.id) p.id AS "personId", p.name, b.name AS "benchName"
         FROM presences s JOIN people p ON p.id = s.person_id LEFT JOIN benches b ON b.id = s.bench_id
         WHERE s.job_id = $1 AND s.seen_at > $2 ORDER BY p.name, p.id, s.seen_at DESC`,
        [jobId, oldest(scope.now)],
      ),
    );
  }

  /** That nobody can be seen does not keep anybody from working. */
  private async quietly(work: (scope: Scope) => Promise<void>): Promise<void> {
    await this.database.write(this.now(), noCaller, work).catch(() => undefined);
  }
}

const oldest = (now: Date) => new Date(now.getTime() - presentSeconds * 1000);

async function tell(scope: Scope, jobId: string): Promise<void> {
  // Whom nobody took off any more.
  await scope.sql("DELETE FROM presences WHERE job_id = $1 AND seen_at <= $2 RETURNING id", [jobId, oldest(scope.now)]);
  await scope.sql(`SELECT pg_notify('${presenceChannel}', json_build_object('job', $1::text)::text)`, [jobId]);
}
