import { type Problem, ruleVersion } from "@pale-cap/contract";
import { pageClock } from "../api/clock";
import { newId } from "../api/newId";
import { useAppSelector } from "../app/store/hooks";
import { asProblem } from "../ui/ProblemNote";
import { useChangeHouseRuleMutation, useHouseRuleChangesQuery, useHouseRulesQuery } from "./houseRulesApi";

/** What closed jobs move and the shop leaves out, by code; and the way to leave one out or take it in again. */
export function useLeaveOut(): {
  readonly leftOut: readonly string[];
  readonly isUsed: boolean;
  readonly problem: Problem | undefined;
  readonly leave: (code: string, isOut: boolean) => void;
} {
  const { data: rules } = useHouseRulesQuery();
  const { data: changes = [] } = useHouseRuleChangesQuery();
  const [change, { error }] = useChangeHouseRuleMutation();
  const personId = useAppSelector((state) => state.workplace.personId);
  const leftOut = rules?.["record.leftOut"] ?? [];
  return {
    leftOut,
    isUsed: rules?.["record.isUsed"] ?? true,
    problem: asProblem(error),
    leave: (code, isOut) => {
      const others = leftOut.filter((one) => one !== code);
      void change({
        ...{ id: newId(), key: "record.leftOut", value: isOut ? [...others, code] : others, reason: null },
        ...{ changedAt: pageClock.moment(), version: ruleVersion(changes, "record.leftOut") },
        ...{ clockId: pageClock.id, personId },
      });
    },
  };
}
