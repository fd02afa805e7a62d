import type { Position } from "@pale-cap/contract";
import { type Clearances, leftEmptyIds, type Surroundings } from "@pale-cap/core";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { plannedParts, useChosenCatalogue } from "../../job/useChosenCatalogue";

/** What a place stands in: its own board, what is chosen there, the lid, the rails' rules and the mains. */
export function useSurroundings({ boardId }: Position): Surroundings {
  const { detail, facts, rules, houseRules } = useJob();
  const catalogue = useChosenCatalogue();
  const mainsHertz = houseRules["mains.hertz"];
  const clearances = useClearances();
  return useMemo(() => {
    const here = new Set(detail.positions.filter((one) => one.boardId === boardId).map((one) => one.id));
    const chosen = plannedParts(
      detail.plans.filter((one) => here.has(one.positionId)),
      catalogue,
    );
    return {
      facts: { ...facts, positions: facts.positions.filter((one) => here.has(one.id)) },
      chosen,
      emptyIds: leftEmptyIds(detail.plans),
      lid: detail.boards.find((one) => one.id === boardId) ?? null,
      rail: rules.rail,
      ...{ mainsHertz, clearances },
    };
  }, [boardId, detail.positions, detail.plans, detail.boards, facts, catalogue, rules.rail, mainsHertz, clearances]);
}

/** The ways that the house keeps between bodies. */
function useClearances(): Clearances {
  const { houseRules } = useJob();
  const secondaryMetres = houseRules["choose.secondaryClearanceMillimetres"] / 1e3;
  const earthedMetres = houseRules["choose.earthedClearanceMillimetres"] / 1e3;
  const hotMetres = houseRules["choose.hotClearanceMillimetres"] / 1e3;
  return useMemo(() => ({ secondaryMetres, earthedMetres, hotMetres }), [secondaryMetres, earthedMetres, hotMetres]);
}
