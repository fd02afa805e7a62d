import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";

/** Every write of a job first holds its row: within a job the order of storing is the order of committing. */
export async function holdingJob(scope: Scope, jobId: string): Promise<Scope> {
  const job = await scope.rows.jobs.locked({ id: jobId, realm: [scope.realm, "practice"] });
  if (!job) throw new HttpProblem("not_found", "There is no job with this id.");
  return { ...scope, job };
}
