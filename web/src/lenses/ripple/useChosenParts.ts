import { type ChosenPart, foundPart, needsReplacement } from "@pale-cap/core";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { plannedParts, useChosenCatalogue } from "../../job/useChosenCatalogue";

/** What the plan puts in; a part that goes out without a choice yet counts as renewed like for like. */
export function useChosenParts(): ReadonlyMap<string, ChosenPart> {
  const { detail, judgements } = useJob();
  const catalogue = useChosenCatalogue();
  return useMemo(() => {
    const parts = new Map<string, ChosenPart>();
    for (const [positionId, judgement] of judgements) {
      const found = foundPart(detail.fittedParts, positionId);
      if (!needsReplacement(judgement) || !found?.capacitanceFarads) continue;
      parts.set(positionId, {
        capacitanceFarads: found.capacitanceFarads,
        esrOhms: null,
        ratedRippleAmpsRms: null,
      });
    }
    for (const [positionId, part] of plannedParts(detail.plans, catalogue)) parts.set(positionId, part);
    return parts;
  }, [detail.fittedParts, detail.plans, judgements, catalogue]);
}
