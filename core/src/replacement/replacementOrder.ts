import { tradeConstants } from "../constants/tradeConstants";
import { lifeScatter } from "../life/lifeScatter";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";
import type { RankedReplacement } from "./rankReplacements";

const { lifeFailedRatio, lifeShape } = tradeConstants.replacement;

/** What stands first where several parts fit. */
export const replacementOrders = ["longest_life", "expected_cost", "drawer_first"] as const;
export type ReplacementOrder = (typeof replacementOrders)[number];

export interface OrderContext {
  readonly order: ReplacementOrder;
  readonly warrantyHours: number;
  /** What it takes to have the unit back, without the part. */
  readonly returnCostMinor: number;
  /** Free pieces in the drawers. */
  readonly stockCountOf: (id: string) => number;
}

export interface OrderedReplacement extends RankedReplacement {
  readonly stockCount: number;
  /** When one of ten has failed, and when half have; uncapped. */
  readonly tenPercentHours: number;
  readonly medianHours: number;
  readonly returnProbability: number;
  readonly expectedCostMinor: number;
}

/**
 * Orders what fits by the house rule, with the spread of each life.
 *
 *     Weibull, slope 4, one of ten failed at the computed life;  cost = price + P(failure in warranty) (return + price)
 *
 * The order is solid, the chances are rough. Ties go on to the uncapped life: the lighter load and the cooler air win.
 *
 * @throws {OutOfRangeError} warranty not above 0, cost negative
 */
export function orderReplacements(
  survivors: readonly RankedReplacement[],
  context: OrderContext,
): readonly OrderedReplacement[] {
  const warrantyHours = requirePositive("warrantyHours", context.warrantyHours);
  const returnCostMinor = requireNonNegative("returnCostMinor", context.returnCostMinor);
  const ordered = survivors.map((one): OrderedReplacement => {
    const scatter = lifeScatter({
      ...{ lifeHours: one.lifeHours, failedRatio: lifeFailedRatio, distribution: "weibull", shape: lifeShape },
      ...{ ageHours: 0, warrantyHours },
    });
    const returnProbability = scatter.warrantyFailureProbability;
    const { priceMinor } = one.part;
    return {
      ...one,
      stockCount: context.stockCountOf(one.part.id),
      tenPercentHours: scatter.hoursAtTenPercent,
      medianHours: scatter.medianHours,
      returnProbability,
      expectedCostMinor: priceMinor + returnProbability * (returnCostMinor + priceMinor),
    };
  });
  return ordered.sort(byOrder(context.order));
}

const byLife = (a: OrderedReplacement, b: OrderedReplacement): number =>
  b.cappedLifeHours - a.cappedLifeHours || b.lifeHours - a.lifeHours || a.part.priceMinor - b.part.priceMinor;

function byOrder(order: ReplacementOrder): (a: OrderedReplacement, b: OrderedReplacement) => number {
  if (order === "expected_cost") return (a, b) => a.expectedCostMinor - b.expectedCostMinor || byLife(a, b);
  if (order === "drawer_first") {
    return (a, b) => Number(b.stockCount > 0) - Number(a.stockCount > 0) || byLife(a, b);
  }
  return byLife;
}

/** Why the first line stands first. */
export type FirstReason =
  | "lasts_longest"
  | "lasts_longest_by_load"
  | "costs_least"
  | "lies_in_drawer"
  | "none_in_drawer";

export function firstReason(ordered: readonly OrderedReplacement[], order: ReplacementOrder): FirstReason | null {
  const [first, second] = ordered;
  if (!first) return null;
  if (order === "expected_cost") return "costs_least";
  if (order === "drawer_first") return first.stockCount > 0 ? "lies_in_drawer" : "none_in_drawer";
  return second && second.cappedLifeHours === first.cappedLifeHours ? "lasts_longest_by_load" : "lasts_longest";
}
