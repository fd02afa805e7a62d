import type { Scope } from "../database/scope";

/** A write says only that the summary of its job is old; it is folded anew after the commit. */
export async function markStale(scope: Scope, jobId: string): Promise<void> {
  await scope.sql(
    `INSERT INTO job_summaries (job_id, realm, number, is_closed, due_on)
     SELECT id, realm, number, handed_over_at IS NOT NULL, due_on FROM jobs WHERE id = $1
     ON CONFLICT (job_id) DO UPDATE SET is_stale = true, marked = job_summaries.marked + 1,
       is_closed = EXCLUDED.is_closed, due_on = EXCLUDED.due_on RETURNING job_id`,
    [jobId],
  );
}

/** A change of a rule may turn what open jobs show; a closed one keeps what it was closed with. */
export async function markOpenJobsStale(scope: Scope): Promise<void> {
  await scope.sql(
    `UPDATE job_summaries SET is_stale = true, marked = marked + 1
     WHERE NOT is_closed AND realm IN ($1, 'practice') RETURNING job_id`,
    [scope.realm],
  );
}
