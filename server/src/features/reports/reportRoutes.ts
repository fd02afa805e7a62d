import {
  type ReportAudience,
  type ReportDifference,
  type ReportDocument,
  type ReportVersion,
  reportAudiences,
  reportQuerySchema,
  routes,
} from "@pale-cap/contract";
import { documentDifference } from "@pale-cap/wording";
import type { AppContext } from "../../appContext";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { live, type Route, read } from "../../http/route";
import { sendPdf } from "../../http/sendPdf";
import { parseBody } from "../../http/validate";
import { storedFile, storedReport } from "../../reports/storeReports";

/** Reports of a job: as it stands now, and as they were handed over. */
export function reportRoutes(context: AppContext): readonly Route[] {
  const { database, heavy, now } = context;
  /** A thread's refusals come back without their kind: whether the job is there is asked here. */
  const requireJob = (jobId: string) =>
    database.read(now(), async ({ rows }) => {
      if (!(await rows.jobs.has({ id: jobId }))) throw new HttpProblem("not_found", "There is no job with this id.");
    });
  return [
    live({
      method: "get",
      path: routes.report,
      right: "read",
      live: async (request, response, { params }) => {
        const { audience } = parseBody(reportQuerySchema, request.query);
        const jobId = params.jobId as string;
        await requireJob(jobId);
        response.json(await heavy.report(jobId, audience));
      },
    }),
    live({
      method: "get",
      path: routes.reportFile,
      right: "export",
      live: async (request, response, { params }) => {
        const { audience, paper = null } = parseBody(reportQuerySchema, request.query);
        const jobId = params.jobId as string;
        await requireJob(jobId);
        const asked = { audience, paper, document: null, madeAt: now() };
        sendPdf(response, `report-${audience}`, await heavy.reportFile(jobId, asked));
      },
    }),
    read({
      path: routes.reports,
      right: "read",
      read: (scope, { params }) => versions(scope, params.jobId as string),
    }),
    read({
      path: routes.storedReport,
      right: "read",
      schema: reportQuerySchema,
      query: (query) => query,
      read: async (scope, { params, body }) => {
        const { jobId, reportId } = params as { jobId: string; reportId: string };
        return (await storedReport(scope, jobId, reportId, body.audience)).document;
      },
    }),
    live({
      method: "get",
      path: routes.storedReportFile,
      right: "export",
      live: async (request, response, { params }) => {
        const { audience } = parseBody(reportQuerySchema, request.query);
        const { jobId, reportId } = params as { jobId: string; reportId: string };
        sendPdf(response, `report-${audience}`, await storedFile(context, { jobId, reportId, audience }));
      },
    }),
  ];
}

/** Every version, the newest first, each with what differs from the one before. */
async function versions(scope: Scope, jobId: string): Promise<readonly ReportVersion[]> {
  const reports = await scope.rows.reports.all({ jobId }, [["number", "ASC"]]);
  const words = await scope.rows.reportDocuments.all({ jobId }, [["audience", "ASC"]]);
  const documentOf = (reportId: string, audience: ReportAudience): ReportDocument | null =>
    words.find((one) => one.reportId === reportId && one.audience === audience)?.document ?? null;
  return reports
    .map(({ id, number, madeAt, coreVersion }, n): ReportVersion => {
      const before = reports[n - 1];
      const difference = (audience: ReportAudience): ReportDifference => {
        const [old, own] = [before && documentOf(before.id, audience), documentOf(id, audience)];
        return old && own ? documentDifference(old, own) : { added: [], gone: [] };
      };
      return {
        ...{ id, number, coreVersion, madeAt: madeAt.toISOString() },
        difference: before
          ? (Object.fromEntries(reportAudiences.map((one) => [one, difference(one)])) as ReportVersion["difference"])
          : null,
      };
    })
    .reverse();
}
