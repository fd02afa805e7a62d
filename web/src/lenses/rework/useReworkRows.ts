import { needsReplacement } from "@pale-cap/core";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { useChosenCatalogue } from "../../job/useChosenCatalogue";
import { useSelectedPosition } from "../../job/useTarget";
import { type ReworkRows, reworkRows } from "./reworkRows";

/** The chosen places, those judged bad, and the one that is selected: what is to come out needs no choice. */
export function useReworkRows(): readonly ReworkRows[] {
  const { detail, judgements } = useJob();
  const catalogue = useChosenCatalogue();
  const selected = useSelectedPosition()?.id;
  return useMemo(() => {
    const bad = [...judgements.values()].filter(needsReplacement).map((one) => one.positionId);
    return reworkRows(detail, catalogue, new Set(selected ? [...bad, selected] : bad));
  }, [detail, catalogue, judgements, selected]);
}
