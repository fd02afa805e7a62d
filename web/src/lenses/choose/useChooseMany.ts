import type { Problem } from "@pale-cap/contract";
import { useState } from "react";
import { usePlanEdit } from "../../job/usePlanEdit";

/** Chooses for several places, one after the other; the first that is refused stops the rest and says so. */
export function useChooseMany() {
  const { edit } = usePlanEdit();
  const [problem, setProblem] = useState<Problem>();
  const [isSaving, setSaving] = useState(false);
  const save = async (
    choices: readonly {
      readonly positionId: string;
      /** null: the place stays empty. */
      readonly cataloguePartId: string | null;
      /** Whether a piece of it lies free in a drawer. */
      readonly isFromDrawer: boolean;
    }[],
  ): Promise<void> => {
    setSaving(true);
    setProblem(undefined);
    for (const { positionId, cataloguePartId, isFromDrawer } of choices) {
      const drawer = isFromDrawer ? { isFromDrawer } : { stockItemId: null };
      const isLeftEmpty = cataloguePartId === null;
      const choice = { cataloguePartId, partInHand: null, reasons: { part: null }, isLeftEmpty, ...drawer };
      const refusal = await edit(positionId, () => choice);
      if (refusal) {
        setProblem(refusal);
        break;
      }
    }
    setSaving(false);
  };
  return { save, problem, isSaving };
}
