import type { PlanEdit, PlanRow, Problem } from "@pale-cap/contract";
import { noOverrides, type RequirementOverrides, roundNumber } from "@pale-cap/core";
import { newId } from "../api/newId";
import { asProblem } from "../ui/ProblemNote";
import { useEditPlanMutation } from "./planApi";
import { useInTurn } from "./useInTurn";

/** What to change, from the plan as it is stored by then; none is stored before the first edit. */
export type MakePlanChange = (overrides: RequirementOverrides, stored: PlanRow | undefined) => PlanChange;
export type PlanChange = Partial<
  Pick<
    PlanEdit,
    | "cataloguePartId"
    | "partInHand"
    | "overrides"
    | "reasons"
    | "stockItemId"
    | "isFromDrawer"
    | "isLeftEmpty"
    | "component"
    | "otherPart"
  >
>;

/** Edits the plan of any place, each edit made from what is stored by then; gives what the server refused. */
export function usePlanEdit() {
  const [editPlan, { isLoading }] = useEditPlanMutation();
  const inTurn = useInTurn();
  const edit = (positionId: string, change: MakePlanChange): Promise<Problem | undefined> =>
    inTurn(
      async (latest) => {
        const stored = latest.plans.find((one) => one.positionId === positionId);
        // What an earlier round chose went in then.
        const isOfRound = stored?.round === roundNumber(latest.acts);
        const current = { ...noOverrides, ...stored?.overrides };
        const body: PlanEdit = {
          writeId: newId(),
          version: stored?.version ?? 0,
          cataloguePartId: (isOfRound && stored?.cataloguePartId) || null,
          overrides: current,
          ...change(current, stored),
        };
        const answer = await editPlan({ jobId: latest.job.id, positionId, body });
        return asProblem(answer.error);
      },
      (unsent) => unsent,
    );
  return { edit, isLoading };
}
