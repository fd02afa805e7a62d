import { randomUUID } from "node:crypto";
import { type ComponentPlan, type PlanEdit, planEditSchema, routes } from "@pale-cap/contract";
import { Op } from "sequelize";
import type { ReplacementPlanRow } from "../../database/models/replacementPlans";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { toPlan } from "../../records/loadJobs";
import { requirePositionOfJob } from "../../records/ownership";
import { currentRound } from "../../records/reworkActs";
import { freeItemOf, releaseOf, reserveFor } from "../../records/stock";
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
      const stockItemId = await promisedItem(scope, positionId, body, stored?.round === round ? stored : null);
      const isLeftEmpty =
        body.cataloguePartId === null && partInHandId === null && (body.isLeftEmpty ?? stored?.isLeftEmpty ?? false);
      const values = {
        ...{ cataloguePartId: body.cataloguePartId, stockItemId, isLeftEmpty, round },
        ...(body.component !== undefined && { component: await knownComponent(scope, body.component) }),
        ...(body.otherPart !== undefined && { otherPart: body.otherPart }),
        ...body.overrides,
        reasons,
      };
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

/**
 * Which heap one piece is promised from after this edit: as before while the same part stands, else what the edit asks for. The
 * promise before it is given back first, so that a change of mind never counts twice.
 *
 * @throws {HttpProblem} where nothing of it is free: nothing was changed
 */
async function promisedItem(
  scope: Scope,
  positionId: string,
  body: PlanEdit,
  stored: ReplacementPlanRow | null,
): Promise<string | null> {
  const isSame = stored !== null && isKept(body, stored);
  const isAsked = body.stockItemId !== undefined || body.isFromDrawer !== undefined;
  if (isSame && !isAsked) return stored.stockItemId;
  const isFitted = await scope.rows.fittedParts.has({ positionId, fittedAt: { [Op.ne]: null }, removedAt: null });
  if (isFitted) {
    if (isAsked)
      throw new HttpProblem("conflict", "The new part is in already: untick that first. Nothing was changed.");
    return stored?.stockItemId ?? null;
  }
  await releaseOf(scope, positionId);
  const takes = body.stockItemId != null || body.isFromDrawer === true;
  if (takes && scope.job?.realm === "practice") {
    throw new HttpProblem("conflict", "Nothing leaves a drawer for a practice job: choose it from the catalogue.");
  }
  const itemId = body.stockItemId ?? (body.isFromDrawer ? await oldestFree(scope, body) : null);
  if (itemId === null) return null;
  const item = await scope.rows.stockItems.first({ id: itemId });
  if (!item || item.cataloguePartId !== body.cataloguePartId) {
    throw new HttpProblem("conflict", "These lie in a drawer under another name. Nothing was changed.");
  }
  await reserveFor(scope, itemId, positionId);
  return itemId;
}

async function oldestFree(scope: Scope, { cataloguePartId }: PlanEdit): Promise<string> {
  const itemId = cataloguePartId === null ? null : await freeItemOf(scope, cataloguePartId);
  if (itemId !== null) return itemId;
  throw new HttpProblem(
    "conflict",
    "None of it is free in a drawer any more: the last one was promised elsewhere. Nothing was changed.",
  );
}

/** Of the list, and of the kind that it says. */
async function knownComponent(
  scope: Scope,
  component: NonNullable<PlanEdit["component"]> | null,
): Promise<ComponentPlan | null> {
  if (component?.componentId == null) return component;
  const { componentId: id, kind } = component;
  if (await scope.rows.catalogueComponents.has({ id, kind })) return component;
  throw new HttpProblem(
    "conflict",
    "This part is not in the catalogue any more, or of another kind. Nothing was changed.",
  );
}

/** What lies there stays while the same part is chosen and nobody says otherwise. */
function isKept(body: PlanEdit, stored: { readonly cataloguePartId: string | null }): boolean {
  return body.partInHand === undefined && body.cataloguePartId === stored.cataloguePartId;
}
