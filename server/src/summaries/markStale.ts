import type { Scope } from "../database/scope";

/** The channel on which changes of jobs are told, with nothing but the job and a place in the order. */
export const changesChannel = "pale_cap_changes";
/** In the place of a job: something that all of them are judged by. */
export const everyJob = "every";
/** And that on which somebody comes to a job or leaves it. */
export const presenceChannel = "pale_cap_presence";

/**
 * A write says only that the summary of its job is old, which is folded anew after the commit; and to whoever looks at the job that
 * something came, which travels with the commit.
 *
 * @param what an edit also says up to where things changed that are not only added to
 */
export async function markStale(scope: Scope, jobId: string, what: "fact" | "edit" = "edit"): Promise<void> {
  await scope.sql(
    `INSERT INTO job_summaries (job_id, realm, number, is_closed, due_on)
     SELECT id, realm, number, handed_over_at IS NOT NULL, due_on FROM jobs WHERE id = $1
     ON CONFLICT (job_id) DO UPDATE SET is_stale = true, marked = job_summaries.marked + 1,
       is_closed = EXCLUDED.is_closed, due_on = EXCLUDED.due_on RETURNING job_id`,
    [jobId],
  );
  if (what === "edit") {
    await scope.sql("UPDATE jobs SET changed_sequence = nextval('fact_sequence') WHERE id = $1 RETURNING id", [jobId]);
  }
  await scope.sql(
    `SELECT pg_notify('${changesChannel}', json_build_object('job', $1::text, 'sequence', nextval('fact_sequence'))::text)`,
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
  await scope.sql(`SELECT pg_notify('${changesChannel}', json_build_object('job', '${everyJob}')::text)`);
}
