import { needsReplacement, quoteDrift, repairEstimate } from "@pale-cap/core";
import { useClosedJobsQuery } from "./familyApi";
import { useJob } from "./JobContext";
import { useChosenCatalogue } from "./useChosenCatalogue";

export type RepairFigures = ReturnType<typeof useRepairEstimate>;

/** Minutes and parts from the shop's record, the house rules, and what Judge and Choose know by now. */
export function useRepairEstimate() {
  const { detail, judgements, houseRules } = useJob();
  const { data: closed = [] } = useClosedJobsQuery(detail.job.id);
  const catalogue = useChosenCatalogue() ?? [];
  const chosen = detail.plans.flatMap((plan) => catalogue.find((part) => part.id === plan.cataloguePartId) ?? []);
  const chosenMinor = chosen.reduce((sum, part) => sum + part.priceMinor, 0);
  const condemnedCount = [...judgements.values()].filter(needsReplacement).length;
  const known = { chosenMinor, chosenCount: chosen.length, condemnedCount };
  const estimate = repairEstimate(closed, known, {
    usualMinutes: houseRules["shop.usualMinutes"],
    minutesPerPart: houseRules["shop.minutesPerPart"],
    usualPartMinor: houseRules["shop.usualPartMinor"],
  });
  return { ...estimate, ...known, drift: quoteDrift(closed) };
}
