import type { Position } from "@pale-cap/contract";
import { foundPart, noOverrides, type Requirement, replacementRequirement, type Surroundings } from "@pale-cap/core";
import { useCallback } from "react";
import { useJob } from "../../job/JobContext";

/** What any place of the board needs, with what was set by hand there; null while its value or voltage is not known. */
export function useRequirementOf(around: Surroundings): (position: Position) => Requirement | null {
  const { detail, houseRules } = useJob();
  return useCallback(
    (position) => {
      const part = foundPart(detail.fittedParts, position.id);
      const plan = detail.plans.find((one) => one.positionId === position.id);
      if (!part) return null;
      return replacementRequirement(
        {
          ...{ position, part, around },
          net: detail.nets.find((one) => one.id === position.netId) ?? null,
          voltageSchool: houseRules["choose.voltageSchool"],
          capacitanceSchool: houseRules["choose.capacitance"],
          lowRailVoltsRatio: houseRules["choose.lowRailVoltsRatio"] || null,
          purpose: detail.job.intakeDetails.purpose,
        },
        plan?.overrides ?? noOverrides,
      );
    },
    [detail.fittedParts, detail.plans, detail.nets, detail.job.intakeDetails.purpose, houseRules, around],
  );
}
