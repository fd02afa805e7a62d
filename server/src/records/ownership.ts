import type { TargetKind } from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";

/**
 * Rows may only refer to what belongs to the same job: an id from another job is refused like one that is not stored. A
 * place that was taken off the board still counts: a fact confirmed before may come after.
 */
async function requireRow(scope: Scope, query: string, bind: readonly string[], field: string): Promise<void> {
  const rows = await scope.sql(query, bind);
  if (rows.length > 0) return;
  throw new HttpProblem("conflict", "This refers to something that is not on the job.", {
    errors: [{ path: field, code: "not_on_job" }],
  });
}

const positionOfJob = `SELECT 1 FROM positions p JOIN boards b ON b.id = p.board_id WHERE p.id = $1 AND b.job_id = $2`;
const netOfJob = `SELECT 1 FROM nets n JOIN boards b ON b.id = n.board_id WHERE n.id = $1 AND b.job_id = $2`;
const partOfJob = `SELECT 1 FROM fitted_parts f JOIN positions p ON p.id = f.position_id
  JOIN boards b ON b.id = p.board_id WHERE f.id = $1 AND b.job_id = $2`;
const photoOfJob = "SELECT 1 FROM photos WHERE id = $1 AND job_id = $2";

export const requirePositionOfJob = (scope: Scope, jobId: string, id: string) =>
  requireRow(scope, positionOfJob, [id, jobId], "positionId");

export const requireNetOfJob = (scope: Scope, jobId: string, id: string) =>
  requireRow(scope, netOfJob, [id, jobId], "netId");

export const requirePhotoOfJob = (scope: Scope, jobId: string, id: string) =>
  requireRow(scope, photoOfJob, [id, jobId], "photoId");

export const requirePartOfJob = (scope: Scope, jobId: string, id: string) =>
  requireRow(scope, partOfJob, [id, jobId], "fittedPartId");

/** What a reading is aimed at must be on the job too. */
export async function requireTarget(
  scope: Scope,
  jobId: string,
  target: { readonly targetKind: TargetKind; readonly targetId: string },
): Promise<void> {
  if (target.targetKind === "unit") {
    if (target.targetId !== jobId) throw new HttpProblem("conflict", "The unit is another job's.");
    return;
  }
  const query = target.targetKind === "part" ? positionOfJob : netOfJob;
  await requireRow(scope, query, [target.targetId, jobId], "targetId");
}
