import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { type AgedPart, returnProbabilityOf } from "../life/returnChance";
import { requireBetween, requireNonNegative } from "../numerics/requireRange";

/** A capacitor of the board as a repair weighs it. */
export interface StrategyPart extends AgedPart {
  readonly rail: string;
  readonly series: string;
  /** Of the new one, in the shop's money. */
  readonly partCost: number;
  readonly minutes: number;
}

export const repairStrategies = ["failed_only", "same_rail_series", "every", "swap"] as const;
export type RepairStrategy = (typeof repairStrategies)[number];

export interface StrategyRow {
  readonly strategy: RepairStrategy;
  /** Parts that go; null where the whole supply does. */
  readonly replaced: readonly number[] | null;
  readonly fixedCost: number;
  readonly returnProbability: number;
  readonly expectedCost: number;
}

export interface StrategyComparison {
  /** In the order of `repairStrategies`; a swap only where one is offered. */
  readonly rows: readonly StrategyRow[];
  readonly winner: RepairStrategy;
  readonly runnerUp: RepairStrategy | null;
  /** At this price of a return the runner-up costs the same; null where no price would turn it. */
  readonly breakEvenReturnCost: number | null;
}

const even = { cost: 1e-9, probability: 1e-12 } as const;

/**
 * Expected cost of the ways to repair: what failed; all of the same rail and series; every capacitor; the whole supply.
 *
 *     fixed = parts + (fixed minutes + minutes) rate/60;  cost = fixed + P(return) x what a return costs
 *     break-even = (fixed_r - fixed_w) / (P_w - P_r)
 *
 * The method is solid, its inputs are rough. Ways that replace the same parts count once; a later one must be cheaper.
 *
 * @throws {OutOfRangeError} no part, a failed one of age 0, money or minutes below 0
 */
export function compareStrategies(question: {
  readonly parts: readonly StrategyPart[];
  readonly warrantyHours: number;
  readonly workFailureRatio?: number | null;
  readonly hasFrailty: boolean;
  readonly ratePerHour: number;
  readonly fixedMinutes: number;
  readonly returnCost: number;
  readonly swap: { readonly cost: number; readonly minutes: number; readonly returnProbability: number } | null;
}): StrategyComparison {
  const { parts, swap } = question;
  for (const part of parts) {
    requireNonNegative("partCost", part.partCost);
    requireNonNegative("minutes", part.minutes);
    if (part.rail === "" || part.series === "") throw new OutOfRangeError("rail", part.rail, "a name");
  }
  const rate = requireNonNegative("ratePerHour", question.ratePerHour) / 60;
  const fixedMinutes = requireNonNegative("fixedMinutes", question.fixedMinutes);
  const returnCost = requireNonNegative("returnCost", question.returnCost);
  const failed = parts.filter((part) => part.hasFailed);
  const isLikeFailed = (part: StrategyPart) =>
    failed.some((one) => one.rail === part.rail && one.series === part.series);
  const sets = { failed_only: failed, same_rail_series: parts.filter(isLikeFailed), every: parts } as const;
  const rows = (["failed_only", "same_rail_series", "every"] as const).map((strategy): StrategyRow => {
    const goes: readonly StrategyPart[] = sets[strategy];
    const returnProbability = returnProbabilityOf(parts, new Set(goes), question.warrantyHours, question, {
      ...planningConstants.H,
    });
    const minutes = fixedMinutes + goes.reduce((sum, part) => sum + part.minutes, 0);
    const fixedCost = goes.reduce((sum, part) => sum + part.partCost, 0) + minutes * rate;
    const replaced = goes.map((part) => parts.indexOf(part));
    return {
      strategy,
      replaced,
      fixedCost,
      returnProbability,
      expectedCost: fixedCost + returnProbability * returnCost,
    };
  });
  if (swap) {
    const fixedCost = requireNonNegative("cost", swap.cost) + requireNonNegative("minutes", swap.minutes) * rate;
    const chance = swap.returnProbability;
    if (chance !== 0 && chance !== 1) requireBetween("returnProbability", chance, 0, 1);
    const expectedCost = fixedCost + chance * returnCost;
    rows.push({ strategy: "swap", replaced: null, fixedCost, returnProbability: chance, expectedCost });
  }
  const winner = cheapest(rows, null) as StrategyRow;
  const runnerUp = cheapest(rows, winner);
  return {
    ...{ rows, winner: winner.strategy, runnerUp: runnerUp?.strategy ?? null },
    breakEvenReturnCost: runnerUp && breakEven(winner, runnerUp),
  };
}

/** The cheapest of the ways that differ from every one before them. */
function cheapest(rows: readonly StrategyRow[], without: StrategyRow | null): StrategyRow | null {
  const seen: string[] = [];
  let best: StrategyRow | null = null;
  for (const row of rows) {
    const key = row.replaced === null ? "swap" : row.replaced.join();
    if (seen.includes(key)) continue;
    seen.push(key);
    if (row === without) continue;
    if (best === null || row.expectedCost < best.expectedCost - even.cost) best = row;
  }
  return best;
}

function breakEven(winner: StrategyRow, runnerUp: StrategyRow): number | null {
  const more = winner.returnProbability - runnerUp.returnProbability;
  if (Math.abs(more) <= even.probability) return null;
  const cost = (runnerUp.fixedCost - winner.fixedCost) / more;
  return cost < 0 ? null : cost;
}
