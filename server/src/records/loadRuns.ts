import type { RunRow, RunSamples } from "@pale-cap/contract";
import type { RunKind, RunSample } from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { grouped, onWire } from "./loadJobs";

/** The runs of a job with what happened to each, oldest first. */
export async function loadRuns(scope: Scope, jobId: string): Promise<readonly RunRow[]> {
  return (await loadRunsOf(scope, [jobId])).map(({ jobId: _, ...run }) => run);
}

/** The runs of some jobs, of one kind where it is said. */
export async function loadRunsOf(
  scope: Scope,
  jobIds: readonly string[],
  kind: RunKind | null = null,
): Promise<readonly (RunRow & { readonly jobId: string })[]> {
  const all = await scope.rows.proofRuns.all({ jobId: [...jobIds] }, [["sequence", "ASC"]]);
  const runs = kind === null ? all : all.filter((one) => one.plan.kind === kind);
  const events = grouped(
    await scope.rows.proofRunEvents.all({ runId: runs.map((one) => one.id) }, [["sequence", "ASC"]]),
    (one) => one.runId,
  );
  return onWire(
    runs.map(({ id, jobId, plan, isAttendedOnly, isSimulated, personId, begunAt }) => ({
      ...{ id, jobId, plan, isAttendedOnly, isSimulated, personId, begunAt },
      events: (events.get(id) ?? []).map(({ kind, seconds, step, stop, at }) => ({ kind, seconds, step, stop, at })),
    })),
  ) as readonly (RunRow & { readonly jobId: string })[];
}

/** So many samples in one answer. */
const mostSamples = 5000;

/** @param after number of the last sample that is known; -1: none */
export async function loadRunSamples(scope: Scope, jobId: string, runId: string, after: number): Promise<RunSamples> {
  if (!(await scope.rows.proofRuns.has({ id: runId, jobId }))) {
    throw new HttpProblem("not_found", "There is no such run on this job.");
  }
  const rows = await scope.sql<{ number: number; sample: RunSample }>(
    "SELECT number, sample FROM proof_run_samples WHERE run_id = $1 AND number > $2 ORDER BY number LIMIT $3",
    [runId, after, mostSamples],
  );
  return { samples: rows.map((one) => one.sample), next: rows.at(-1)?.number ?? after };
}
