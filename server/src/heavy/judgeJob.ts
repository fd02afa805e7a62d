import { jobFacts } from "@pale-cap/contract";
import { type JudgementRules, judgeBoard, roundView } from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { loadJob } from "../records/loadJobs";
import { loadJobRules } from "../records/rules";

/** A job as it was judged at one moment, and the mark by which a later change is noticed. */
export interface Judged {
  readonly marked: number | null;
  readonly rules: JudgementRules;
  readonly readingIds: readonly string[];
  readonly result: object;
}

export async function judgeJob(scope: Scope, jobId: string): Promise<Judged> {
  const detail = await loadJob(scope, jobId);
  const rules = (await loadJobRules(scope)).judgement;
  return {
    marked: await markOf(scope, jobId),
    rules,
    readingIds: detail.readings.map((reading) => reading.id),
    result: Object.fromEntries(judgeBoard(roundView(jobFacts(detail)), rules)),
  };
}

/** Counts the writes of a job: the same number means that nothing came since. */
export async function markOf(scope: Scope, jobId: string): Promise<number | null> {
  return (await scope.rows.jobSummaries.first({ jobId }))?.marked ?? null;
}
