import type { CatalogueRow, PlanRow } from "@pale-cap/contract";
import type { ChosenPart } from "@pale-cap/core";
import { useMemo } from "react";
import { useCataloguePartsQuery } from "./catalogueApi";
import { useJob } from "./JobContext";

/** The catalogue's lines of what a unit's plans and new parts name; undefined until they are there. */
export function useChosenCatalogue(): readonly CatalogueRow[] | undefined {
  const { whole } = useJob();
  const { plans, fittedParts } = whole.detail;
  const ids = useMemo(() => {
    const named = [...plans, ...fittedParts].flatMap((one) => one.cataloguePartId ?? []);
    return [...new Set(named)].sort();
  }, [plans, fittedParts]);
  const { data, currentData } = useCataloguePartsQuery(ids, { skip: ids.length === 0 });
  // While a new choice is fetched the lines before it stay.
  return ids.length === 0 ? none : (currentData ?? data);
}

const none: readonly CatalogueRow[] = [];

/** What the plans put in, as the ripple engine takes it. */
export function plannedParts(
  plans: readonly PlanRow[],
  catalogue: readonly CatalogueRow[] | undefined,
): ReadonlyMap<string, ChosenPart> {
  const parts = new Map<string, ChosenPart>();
  for (const { positionId, cataloguePartId } of plans) {
    const part = catalogue?.find((one) => one.id === cataloguePartId);
    if (!part) continue;
    const { capacitanceFarads, esrOhms, rippleAmpsRms } = part;
    parts.set(positionId, { capacitanceFarads, esrOhms, ratedRippleAmpsRms: rippleAmpsRms });
  }
  return parts;
}
