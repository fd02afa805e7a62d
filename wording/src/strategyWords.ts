import type { RepairStrategy, ReplacementStrategy, StrategyComparison, StrategyGap } from "@pale-cap/core";

export const strategyLabels: Readonly<Record<RepairStrategy, string>> = {
  failed_only: "only what failed",
  same_rail_series: "with it, its like on the same rail",
  every: "every electrolytic",
  swap: "the whole supply",
};

/** Which of the ways a house rule means. */
export const ruleStrategies: Readonly<Record<ReplacementStrategy, RepairStrategy>> = {
  failed_only: "failed_only",
  same_group: "same_rail_series",
  all_electrolytics: "every",
  whole_supply: "swap",
};

/** What is missing before the ways can be weighed; null where there is nothing to weigh. */
export function strategyGapWords(gap: StrategyGap): string | null {
  switch (gap) {
    case "age":
      return "How old the unit is, told in Intake, would say what each way of repairing is likely to cost.";
    case "hours":
      return "Hours of use a day, told in Intake, would say what each way of repairing is likely to cost.";
    case "nothing_failed":
    case "no_capacitors":
      return null;
  }
}

/** Which way costs least, and at which price of a return another would. */
export function breakEvenWords(
  { winner, runnerUp, breakEvenReturnCost }: StrategyComparison,
  returnMinor: number,
  money: (minor: number) => string,
): string {
  const best = `A return is taken to cost ${money(returnMinor)}: then ${strategyLabels[winner]} costs least.`;
  if (runnerUp === null) return best;
  const other = strategyLabels[runnerUp];
  if (breakEvenReturnCost === null) return `${best} Next is ${other}, whatever a return costs.`;
  const side = breakEvenReturnCost > returnMinor ? "above" : "below";
  return `${best} With returns ${side} ${money(breakEvenReturnCost)} it would be ${other}.`;
}
