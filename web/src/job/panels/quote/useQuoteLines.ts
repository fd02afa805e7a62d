import { proposedLines, type QuoteLine } from "@pale-cap/core";
import { useMemo } from "react";
import { useJob } from "../../JobContext";
import { useChosenCatalogue } from "../../useChosenCatalogue";
import { useRepairEstimate } from "../../useRepairEstimate";

/** The lines of the repair as it stands: minutes typed or told by the record, parts as chosen, others at the usual price. */
export function useQuoteLines(): readonly QuoteLine[] {
  const { detail, houseRules } = useJob();
  const estimate = useRepairEstimate();
  const catalogue = useChosenCatalogue();
  const { labourMinutes, partsMinor } = detail.job.intakeDetails.economics;
  return useMemo(() => {
    const chosen = detail.plans.flatMap((plan) => {
      const part = catalogue?.find((one) => one.id === plan.cataloguePartId);
      const place = detail.positions.find((one) => one.id === plan.positionId)?.designator ?? "";
      return part ? [{ part, place }] : [];
    });
    const kinds = [...new Set(chosen.map((one) => one.part.id))];
    const parts = kinds.flatMap((id) => {
      const own = chosen.filter((one) => one.part.id === id);
      const first = own[0]?.part;
      if (!first) return [];
      const places = own.map((one) => one.place).join(", ");
      return [
        {
          words: `${first.maker} ${first.series} ${first.orderCode} (${places})`,
          count: own.length,
          priceMinor: first.priceMinor,
        },
      ];
    });
    const waiting = Math.max(estimate.condemnedCount - estimate.chosenCount, 0);
    const usual = { words: "capacitor, not chosen yet", count: waiting, priceMinor: houseRules["shop.usualPartMinor"] };
    const typed = { words: "parts", count: 1, priceMinor: partsMinor ?? 0 };
    return proposedLines({
      minutes: labourMinutes ?? estimate.minutes,
      labourPerHourMinor: houseRules["shop.labourPerHourMinor"],
      parts: partsMinor !== null ? [typed] : [...parts, ...(waiting > 0 ? [usual] : [])],
      markupRatio: houseRules["shop.markupRatio"],
      smallPartsMinor: houseRules["shop.smallPartsMinor"],
      leastMinor: houseRules["shop.leastChargeMinor"],
    });
  }, [detail, catalogue, estimate, houseRules, labourMinutes, partsMinor]);
}
