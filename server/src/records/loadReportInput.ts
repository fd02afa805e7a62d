import { coreVersion, type RunSample, stepFinding } from "@pale-cap/core";
import type { ReportInput } from "@pale-cap/wording";
import type { Scope } from "../database/scope";
import { loadInstruments } from "./loadInstruments";
import { loadJob } from "./loadJobs";
import { loadRuns } from "./loadRuns";
import { loadRuleValues } from "./rules";

/** How a job is about to be closed: its report says so before the row does. */
export interface Closing {
  readonly handedOverAt: string;
  readonly warrantyUntil: string | null;
  readonly spentMinutes: number | null;
  readonly handOverNote: string | null;
}

/** All rows that a report is drawn from. */
export async function loadReportInput(scope: Scope, jobId: string, closing: Closing | null): Promise<ReportInput> {
  const detail = await loadJob(scope, jobId);
  const runs = await loadRuns(scope, jobId);
  const samples = new Map<string, RunSample[]>();
  for (const { id } of runs) {
    const rows = await scope.sql<{ sample: RunSample }>(
      "SELECT sample FROM proof_run_samples WHERE run_id = $1 ORDER BY number",
      [id],
    );
    samples.set(
      id,
      rows.map((one) => one.sample),
    );
  }
  const reopenings = await scope.rows.jobClosings.all({ jobId, isReopened: true }, [["sequence", "ASC"]]);
  return {
    detail: closing === null ? detail : { ...detail, job: { ...detail.job, ...closing } },
    houseRules: await loadRuleValues(scope),
    runs: runs.map((run) => ({
      ...run,
      findings: run.plan.steps.map((_, step) => stepFinding(run.plan, step, samples.get(run.id) ?? [])),
    })),
    people: await scope.rows.people.all({}, [["name", "ASC"]]),
    instruments: await loadInstruments(scope),
    reopenings: reopenings.map(({ at, note }) => ({ at: at.toISOString(), note })),
    coreVersion,
    nowMilliseconds: scope.now.getTime(),
  };
}
