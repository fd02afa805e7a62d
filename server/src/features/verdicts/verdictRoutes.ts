import { routes, verdictSummarySchema } from "@pale-cap/contract";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { loadJob } from "../../records/loadJobs";

/** The summary of the verdicts in a person's own words. */
export const verdictRoutes = (): readonly Route[] => [
  write({
    method: "put",
    path: routes.verdictSummary,
    kind: "verdict-summary",
    right: "overrule",
    schema: verdictSummarySchema,
    write: async (scope, { body, params }) => {
      const verdictSummary = body.text?.trim() || null;
      await updateFromVersion(
        scope.rows.jobs,
        { id: params.jobId as string, version: body.version },
        { verdictSummary },
      );
    },
    answer: async (scope, { params }) => (await loadJob(scope, params.jobId as string)).job,
  }),
];
