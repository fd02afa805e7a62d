import { type ChosenPart, foundPart, needsReplacement } from "@pale-cap/core";
import { useMemo } from "react";
import { useCatalogueQuery } from "../../job/catalogueApi";
import { useJob } from "../../job/JobContext";

/** What the plan puts in; a part that goes out without a choice yet counts as renewed like for like. */
export function useChosenParts(): ReadonlyMap<string, ChosenPart> {
  const { detail, judgements } = useJob();
  const { data: catalogue = [] } = useCatalogueQuery();
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
    for (const { positionId, cataloguePartId } of detail.plans) {
      const part = catalogue.find((one) => one.id === cataloguePartId);
      if (!part) continue;
      const { capacitanceFarads, esrOhms, rippleAmpsRms } = part;
      parts.set(positionId, { capacitanceFarads, esrOhms, ratedRippleAmpsRms: rippleAmpsRms });
    }
    return parts;
  }, [detail.fittedParts, detail.plans, judgements, catalogue]);
}
