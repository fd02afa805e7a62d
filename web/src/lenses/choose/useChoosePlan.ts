import type { Problem } from "@pale-cap/contract";
import { useState } from "react";
import { type MakePlanChange, usePlanEdit } from "../../job/usePlanEdit";

/** Edits the plan of one place; resolves to whether it was stored. */
export function useChoosePlan(positionId: string) {
  const { edit, isLoading } = usePlanEdit();
  const [problem, setProblem] = useState<Problem>();
  const save = async (change: MakePlanChange): Promise<boolean> => {
    const refusal = await edit(positionId, change);
    setProblem(refusal);
    return refusal === undefined;
  };
  return { save, problem, isLoading };
}
