import { foldSummaries } from "../../../summaries/foldSummaries";
import type { Database } from "../../database";
import type { FoldedPast } from "./loadPast";
import { pastRows } from "./pastRows";

/** Folds all that is marked, and gives what was drawn from the past's jobs as the file holds it. */
export async function foldPast(database: Database, now: Date): Promise<FoldedPast> {
  while (await foldSummaries(database, now));
  const ids = (pastRows(now, []).get("jobs") ?? []).map((job) => job.id as string);
  return database.read(now, async ({ rows, sql }) => {
    const where = { jobId: ids };
    const summaries = await rows.jobSummaries.all(where, [["number", "ASC"]]);
    const jobs = await rows.closedJobs.all(where, [["number", "ASC"]]);
    const findings = await rows.closedFindings.all(where, [
      ["jobId", "ASC"],
      ["designator", "ASC"],
    ]);
    const words = await sql<{ jobId: string; realm: string; number: number; words: string }>(
      `SELECT job_id AS "jobId", realm, number, words FROM job_words WHERE job_id = ANY($1::uuid[]) ORDER BY number`,
      [ids],
    );
    return {
      job_summaries: summaries.map(({ isStale: _, foldedBy: __, ...row }) => row),
      closed_jobs: jobs.map(({ closedAt: _, personId: __, ...row }) => row),
      closed_findings: findings.map((row) => ({ ...row })),
      job_words: words,
    };
  });
}
