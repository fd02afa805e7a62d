import { randomUUID } from "node:crypto";
import { type PlanEdit, planEditSchema, routes } from "@pale-cap/contract";
import { HttpProblem } from "../../http/problems";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { toPlan } from "../../records/loadJobs";
import { requirePositionOfJob } from "../../records/ownership";
import { currentRound } from "../../records/reworkActs";
import { layInHand, putAside } from "./partInHand";

/** What was chosen for each position, and the part itself where it lies there already. */
export const planRoutes = (): readonly Route[] => [
  write({
    method: "put",
    path: routes.plan,
    kind: "plan",
    right: "rework",
    schema: planEditSchema,
    write: async (scope, { body, params }) => {
      const { jobId, positionId } = params as { jobId: string; positionId: string };
      await requirePositionOfJob(scope, jobId, positionId);
      const stored = await scope.rows.replacementPlans.first({ positionId });
      if (!stored && body.version > 0) throw new HttpProblem("not_found", "There is no plan for this position yet.");
      const round = await currentRound(scope, jobId);
      const keptId = stored?.round === round && isKept(body, stored) ? stored.partInHandId : null;
      const partInHandId = body.partInHand ? body.partInHand.id : keptId;
      const reasons = { ...stored?.reasons, ...body.reasons };
      const values = { cataloguePartId: body.cataloguePartId, round, ...body.overrides, reasons };
      if (stored) {
        await updateFromVersion(scope.rows.replacementPlans, { id: stored.id, version: body.version }, values);
        if (stored.partInHandId !== null && stored.partInHandId !== partInHandId) await putAside(scope, stored);
      }
      if (body.partInHand && stored?.partInHandId !== body.partInHand.id) {
        await layInHand(scope, positionId, body.partInHand, body.cataloguePartId);
      }
      if (stored) await scope.rows.replacementPlans.update({ partInHandId }, { id: stored.id });
      else await scope.rows.replacementPlans.insert({ id: randomUUID(), positionId, partInHandId, ...values });
    },
    answer: async (scope, { params }) => {
      const { positionId } = params as { positionId: string };
      const plan = await scope.rows.replacementPlans.first({ positionId });
      if (!plan) throw new HttpProblem("not_found", "There is no plan for this position.");
      const fittedParts = await scope.rows.fittedParts.all({ positionId }, [["id", "ASC"]]);
      return { plan: toPlan(plan), fittedParts };
    },
  }),
];

/** What lies there stays while the same part is chosen and nobody says otherwise. */
function isKept(body: PlanEdit, stored: { readonly cataloguePartId: string | null }): boolean {
  return body.partInHand === undefined && body.cataloguePartId === stored.cataloguePartId;
}
