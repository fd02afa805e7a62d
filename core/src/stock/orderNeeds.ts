import { type OrderRule, type Reorder, reorder } from "./reorder";

/** A place of an open job for which a part is chosen and none is set aside. */
export interface OpenPlace {
  readonly cataloguePartId: string;
  readonly jobId: string;
  readonly positionId: string;
}

/** What the shop has and used of one part. */
export interface PartMovement {
  readonly cataloguePartId: string;
  readonly free: number;
  readonly onOrder: number;
  /** Fitted, net of what was put back, within the days. */
  readonly usedCount: number;
  readonly usedDays: number;
  readonly priceMinor: number;
}

export interface OrderNeed {
  readonly cataloguePartId: string;
  /** Missing for open jobs, after what is free and on order. */
  readonly forJobsCount: number;
  readonly places: readonly OpenPlace[];
  /** On top, to stand above the reorder point again. */
  readonly forShelfCount: number;
  readonly reorderPoint: number;
  readonly count: number;
}

export interface OrderRules {
  readonly leadDays: number;
  readonly service: number;
  readonly orderCostMinor: number;
  /** Of a part's price, a year. */
  readonly holdRatioPerYear: number;
}

/**
 * What is to be ordered: what open jobs lack, and what fell to its reorder point. A part that was never used is not kept: only
 * for jobs it is ordered.
 *
 *     missing = max(0, places - free - on order);  shelf: position after the jobs <= reorder point -> order quantity
 *
 * @throws {OutOfRangeError} as reorder
 */
export function orderNeeds(
  places: readonly OpenPlace[],
  parts: readonly PartMovement[],
  rules: OrderRules,
): readonly OrderNeed[] {
  return parts.flatMap((part) => {
    const own = places.filter((one) => one.cataloguePartId === part.cataloguePartId);
    const have = part.free + part.onOrder;
    const forJobsCount = Math.max(0, own.length - have);
    const position = Math.max(0, have - own.length);
    const usual = part.usedCount > 0 ? reorderOf(part, position, rules) : null;
    const forShelfCount = usual?.shouldOrder ? usual.orderCount : 0;
    const count = forJobsCount + forShelfCount;
    if (count === 0) return [];
    const { cataloguePartId } = part;
    return [
      { cataloguePartId, forJobsCount, places: own, forShelfCount, reorderPoint: usual?.reorderPoint ?? 0, count },
    ];
  });
}

function reorderOf(part: PartMovement, position: number, rules: OrderRules): Reorder {
  const rule: OrderRule = {
    kind: "eoq",
    orderCost: rules.orderCostMinor,
    holdCostPerYear: Math.max(rules.holdRatioPerYear * part.priceMinor, 1e-3),
  };
  return reorder({
    ...{ units: part.usedCount, days: part.usedDays, leadDays: rules.leadDays, service: rules.service },
    ...{ rule, position },
  });
}
