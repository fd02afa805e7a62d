import type { PlanEdit } from "@pale-cap/contract";
import type { ReplacementPlanRow } from "../../database/models/replacementPlans";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { asPart } from "../../records/reworkActs";

/** A new part that lies ready for its place, so that it can be read before it is soldered. */
export async function layInHand(
  { rows }: Scope,
  positionId: string,
  { id, ownPart }: NonNullable<PlanEdit["partInHand"]>,
  cataloguePartId: string | null,
): Promise<void> {
  const common = {
    id,
    positionId,
    origin: "replacement",
    cataloguePartId,
    stripeDegrees: null,
    fittedAt: null,
  } as const;
  if (ownPart) {
    await rows.fittedParts.insert({ ...common, ...ownPart });
    return;
  }
  const part = cataloguePartId === null ? null : await rows.catalogueParts.first({ id: cataloguePartId });
  if (!part) throw new HttpProblem("conflict", "The chosen part is not in the catalogue any more.");
  await rows.fittedParts.insert({ ...common, ...asPart(part) });
}

/** A part that is not going in any more keeps its readings; one that went in stays what it is. */
export async function putAside(scope: Scope, { partInHandId }: ReplacementPlanRow): Promise<void> {
  if (partInHandId === null) return;
  const stillInHand = { id: partInHandId, fittedAt: null, removedAt: null };
  await scope.rows.fittedParts.update({ removedAt: scope.now }, stillInHand);
}
