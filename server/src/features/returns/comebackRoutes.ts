import { comebackEditSchema, type FormerJob, type FormerJobs, type JobAlike, routes } from "@pale-cap/contract";
import { formerJobOf, reportModel } from "@pale-cap/wording";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { type Route, read, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { formerJob } from "../../records/formerJob";
import { loadJob } from "../../records/loadJobs";
import { loadReportInput } from "../../records/loadReportInput";
import { markStale } from "../../summaries/markStale";

/** As many earlier jobs as a person looks through. */
const mostAlike = 20;

/** A unit that is back: which job it had before, what that one says, and why it is back. */
export const comebackRoutes = (): readonly Route[] => [
  read({
    path: routes.formerJobs,
    right: "read",
    read: (scope, { params }) => formerJobs(scope, params.jobId as string),
  }),
  write({
    method: "put",
    path: routes.comeback,
    kind: "comeback",
    right: "take_in",
    schema: comebackEditSchema,
    write: async (scope, { body, params }) => {
      const jobId = params.jobId as string;
      const { comebackOf, kind, version } = body;
      if (comebackOf === jobId) throw new HttpProblem("conflict", "A unit is no return of the job that it is on.");
      if (comebackOf !== null) await formerJob(scope, comebackOf);
      const comebackKind = comebackOf === null ? null : kind;
      const before = scope.job?.comebackOf ?? null;
      await updateFromVersion(scope.rows.jobs, { id: jobId, version }, { comebackOf, comebackKind });
      // What the earlier job was closed with was shown to be the cause, or not.
      for (const id of [before, comebackOf]) if (id !== null) await markStale(scope, id);
    },
    answer: async (scope, { params }) => (await loadJob(scope, params.jobId as string)).job,
  }),
];

async function formerJobs(scope: Scope, jobId: string): Promise<FormerJobs> {
  const { job } = await loadJob(scope, jobId);
  const alike = await scope.sql<JobAlike>(
    `SELECT j.id, j.number, j.handed_over_at AS "handedOverAt", j.warranty_until AS "warrantyUntil",
       coalesce(lower(trim(j.device_serial)) = lower(trim($2)), false) AS "isSameSerial"
     FROM jobs j LEFT JOIN job_customers c ON c.job_id = j.id LEFT JOIN job_customers own ON own.job_id = $1
     WHERE j.realm = $3 AND j.id <> $1 AND j.handed_over_at IS NOT NULL AND j.id IS DISTINCT FROM $4::uuid
       AND (lower(trim(j.device_serial)) = lower(trim($2)) OR c.customer_id = own.customer_id)
     ORDER BY "isSameSerial" DESC, j.handed_over_at DESC LIMIT ${mostAlike}`,
    [jobId, job.deviceSerial, scope.realm, job.comebackOf],
  );
  const linked = job.comebackOf === null ? null : await told(scope, job.comebackOf);
  return { linked, alike: JSON.parse(JSON.stringify(alike)) as readonly JobAlike[] };
}

async function told(scope: Scope, id: string): Promise<FormerJob | null> {
  const job = await scope.rows.jobs.first({ id });
  return job?.handedOverAt ? formerJobOf(reportModel(await loadReportInput(scope, id, null))) : null;
}
