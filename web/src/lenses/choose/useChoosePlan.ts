import type { PlanEdit, Problem } from "@pale-cap/contract";
import { noOverrides, type RequirementOverrides, roundNumber } from "@pale-cap/core";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useInTurn } from "../../job/useInTurn";
import { asProblem } from "../../ui/ProblemNote";
import { useEditPlanMutation } from "./planApi";

type Change = Partial<Pick<PlanEdit, "cataloguePartId" | "partInHand" | "overrides" | "reasons">>;

/** Edits the plan of one place, each edit made from what is stored by then; resolves to whether it was stored. */
export function useChoosePlan(positionId: string) {
  const [editPlan, { isLoading }] = useEditPlanMutation();
  const [problem, setProblem] = useState<Problem>();
  const inTurn = useInTurn();
  const save = async (change: (overrides: RequirementOverrides) => Change): Promise<boolean> => {
    const refusal = await inTurn(
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
          ...change(current),
        };
        const answer = await editPlan({ jobId: latest.job.id, positionId, body });
        return asProblem(answer.error);
      },
      (unsent) => unsent,
    );
    setProblem(refusal);
    return refusal === undefined;
  };
  return { save, problem, isLoading };
}
