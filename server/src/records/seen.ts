import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";

/**
 * A job with its photos, captures and papers is for everybody who works here, but a learner's practice: that is theirs and the
 * teacher's.
 *
 * @throws {HttpProblem} as if it were not there
 */
export async function requireSeen(scope: Scope, jobId: string): Promise<void> {
  if (scope.role === "everyone" || scope.role === "lead") return;
  const supply = await scope.rows.practiceSupplies.first({ jobId });
  if (supply && supply.personId !== null && supply.personId !== scope.personId) {
    throw new HttpProblem("not_found", "There is no job with this id.");
  }
}
