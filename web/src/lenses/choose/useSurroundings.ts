import type { Position } from "@pale-cap/contract";
import type { ChosenPart, Surroundings } from "@pale-cap/core";
import { useMemo } from "react";
import { useCatalogueQuery } from "../../job/catalogueApi";
import { useJob } from "../../job/JobContext";

/** What a place stands in: its own board, what is chosen there, the lid, the rails' rules and the mains. */
export function useSurroundings({ boardId }: Position): Surroundings {
  const { detail, facts, rules, houseRules } = useJob();
  const { data: catalogue } = useCatalogueQuery();
  const mainsHertz = houseRules["mains.hertz"];
  return useMemo(() => {
    const here = new Set(detail.positions.filter((one) => one.boardId === boardId).map((one) => one.id));
    const chosen = new Map<string, ChosenPart>();
    for (const { positionId, cataloguePartId } of detail.plans) {
      const part = catalogue?.find((one) => one.id === cataloguePartId);
      if (!part || !here.has(positionId)) continue;
      const { capacitanceFarads, esrOhms, rippleAmpsRms } = part;
      chosen.set(positionId, { capacitanceFarads, esrOhms, ratedRippleAmpsRms: rippleAmpsRms });
    }
    return {
      facts: { ...facts, positions: facts.positions.filter((one) => here.has(one.id)) },
      chosen,
      emptyIds: new Set<string>(),
      lid: detail.boards.find((one) => one.id === boardId) ?? null,
      rail: rules.rail,
      mainsHertz,
    };
  }, [boardId, detail.positions, detail.plans, detail.boards, facts, catalogue, rules.rail, mainsHertz]);
}
