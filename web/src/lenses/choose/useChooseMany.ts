import type { PlanEdit, Problem } from "@pale-cap/contract";
import { noOverrides, roundNumber } from "@pale-cap/core";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useInTurn } from "../../job/useInTurn";
import { asProblem } from "../../ui/ProblemNote";
import { useEditPlanMutation } from "./planApi";

/** Chooses for several places, one after the other; the first that is refused stops the rest and says so. */
export function useChooseMany() {
  const [editPlan] = useEditPlanMutation();
  const [problem, setProblem] = useState<Problem>();
  const [isSaving, setSaving] = useState(false);
  const inTurn = useInTurn();
  const save = async (
    choices: readonly { readonly positionId: string; readonly cataloguePartId: string | null }[],
  ): Promise<void> => {
    setSaving(true);
    setProblem(undefined);
    for (const { positionId, cataloguePartId } of choices) {
      const refusal = await inTurn(
        async (latest) => {
          const stored = latest.plans.find((one) => one.positionId === positionId);
          const body: PlanEdit = {
            ...{ writeId: newId(), version: stored?.version ?? 0, cataloguePartId, partInHand: null },
            overrides: { ...noOverrides, ...(stored?.round === roundNumber(latest.acts) && stored.overrides) },
            reasons: { part: null },
          };
          const answer = await editPlan({ jobId: latest.job.id, positionId, body });
          return asProblem(answer.error);
        },
        (unsent) => unsent,
      );
      if (refusal) {
        setProblem(refusal);
        break;
      }
    }
    setSaving(false);
  };
  return { save, problem, isSaving };
}
