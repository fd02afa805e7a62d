import { randomUUID } from "node:crypto";
import { planEditSchema, routes } from "@pale-cap/contract";
import { HttpProblem } from "../../http/problems";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { toPlan } from "../../records/loadJobs";
import { requirePositionOfJob } from "../../records/ownership";

/** What was chosen for each position. */
export const planRoutes = (): readonly Route[] => [
  write({
    method: "put",
    path: routes.plan,
    kind: "plan",
    right: "rework",
    schema: planEditSchema,
    write: async (scope, { body, params }) => {
      const { jobId, positionId } = params as { jobId: string; positionId: string };
      const values = { cataloguePartId: body.cataloguePartId, ...body.overrides };
      await requirePositionOfJob(scope, jobId, positionId);
      const stored = await scope.rows.replacementPlans.first({ positionId });
      if (stored) {
        await updateFromVersion(scope.rows.replacementPlans, { id: stored.id, version: body.version }, values);
      } else if (body.version > 0) {
        throw new HttpProblem("not_found", "There is no plan for this position yet.");
      } else await scope.rows.replacementPlans.insert({ id: randomUUID(), positionId, ...values });
    },
    answer: async (scope, { params }) => {
      const plan = await scope.rows.replacementPlans.first({ positionId: params.positionId as string });
      if (!plan) throw new HttpProblem("not_found", "There is no plan for this position.");
      return toPlan(plan);
    },
  }),
];
