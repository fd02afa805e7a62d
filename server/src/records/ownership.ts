import type { TargetKind } from "@pale-cap/core";
import { QueryTypes, type Transaction } from "sequelize";
import type { Database } from "../database/database";
import { HttpProblem } from "../http/problems";

/** Rows may only refer to what belongs to the same job: an id from another job is refused like one that is not stored. */
export async function requireJob(database: Database, jobId: string, transaction: Transaction): Promise<void> {
  const job = await database.models.jobs.findByPk(jobId, { attributes: ["id"], transaction });
  if (!job) throw new HttpProblem("not_found", "There is no job with this id.");
}

async function requireRow(
  database: Database,
  query: string,
  bind: readonly string[],
  field: string,
  transaction: Transaction,
): Promise<void> {
  const rows = await database.sequelize.query(query, { bind: [...bind], type: QueryTypes.SELECT, transaction });
  if (rows.length > 0) return;
  throw new HttpProblem("conflict", "This refers to something that is not on the job.", {
    errors: [{ path: field, message: "is not on this job" }],
  });
}

const positionOfJob = `SELECT 1 FROM positions p JOIN boards b ON b.id = p.board_id WHERE p.id = $1 AND b.job_id = $2`;
const netOfJob = `SELECT 1 FROM nets n JOIN boards b ON b.id = n.board_id WHERE n.id = $1 AND b.job_id = $2`;
const partOfJob = `SELECT 1 FROM fitted_parts f JOIN positions p ON p.id = f.position_id
  JOIN boards b ON b.id = p.board_id WHERE f.id = $1 AND b.job_id = $2`;

export function requirePositionOfJob(database: Database, jobId: string, id: string, transaction: Transaction) {
  return requireRow(database, positionOfJob, [id, jobId], "positionId", transaction);
}

export function requireNetOfJob(database: Database, jobId: string, id: string, transaction: Transaction) {
  return requireRow(database, netOfJob, [id, jobId], "netId", transaction);
}

export function requirePhotoOfJob(database: Database, jobId: string, id: string, transaction: Transaction) {
  return requireRow(
    database,
    "SELECT 1 FROM photos WHERE id = $1 AND job_id = $2",
    [id, jobId],
    "photoId",
    transaction,
  );
}

export function requirePartOfJob(database: Database, jobId: string, id: string, transaction: Transaction) {
  return requireRow(database, partOfJob, [id, jobId], "fittedPartId", transaction);
}

/** What a reading is aimed at must be on the job too. */
export async function requireTarget(
  database: Database,
  jobId: string,
  target: { readonly targetKind: TargetKind; readonly targetId: string },
  transaction: Transaction,
): Promise<void> {
  if (target.targetKind === "unit") {
    if (target.targetId !== jobId) throw new HttpProblem("conflict", "The unit is another job's.");
    return;
  }
  const query = target.targetKind === "part" ? positionOfJob : netOfJob;
  await requireRow(database, query, [target.targetId, jobId], "targetId", transaction);
}
