import type { JobRow } from "../database/models/jobs";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";

/**
 * The job that a unit was handed over with before: of the same world, and closed.
 *
 * @throws {HttpProblem} where it is none such
 */
export async function formerJob(scope: Scope, id: string): Promise<JobRow> {
  const job = await scope.rows.jobs.first({ id, realm: scope.realm });
  if (!job) throw new HttpProblem("not_found", "There is no job with this id that a unit could come back from.");
  if (!job.handedOverAt) throw new HttpProblem("conflict", "That job is not handed over yet: go on with it.");
  return job;
}
