import type { CatalogueComponent } from "@pale-cap/core";
import { useMemo } from "react";
import { useComponentsByIdQuery } from "./catalogueApi";
import { useJob } from "./JobContext";

/** The lines of the list of other parts that a unit's plans name; undefined until they are there. */
export function useChosenComponents(): readonly CatalogueComponent[] | undefined {
  const { plans } = useJob().whole.detail;
  const ids = useMemo(() => [...new Set(plans.flatMap((one) => one.component?.componentId ?? []))].sort(), [plans]);
  const { data, currentData } = useComponentsByIdQuery(ids, { skip: ids.length === 0 });
  return ids.length === 0 ? none : (currentData ?? data);
}

const none: readonly CatalogueComponent[] = [];
