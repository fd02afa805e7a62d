import { OutOfRangeError } from "../errors";
import { requireNonNegative } from "../numerics/requireRange";

/** A part that is to go in, and how many of it lie in the drawers. */
export interface WantedPart {
  readonly partId: string;
  readonly stockCount: number;
}

export interface StockDeadline {
  readonly inStockCount: number;
  /** Places for which nothing lies in a drawer. */
  readonly toOrderCount: number;
  /** First day on which every part is there, as `2026-11-27`. */
  readonly readyOn: string;
  /** null without a due date. */
  readonly isInTime: boolean | null;
}

/**
 * Whether the parts are there before the unit is due: what lies in the drawers counts at once, the rest after the usual
 * days of an order. Several places may want the same part: each takes one out of the drawer.
 *
 * @param today a day like `2026-11-24`
 * @throws {OutOfRangeError} days negative, `today` not a day
 */
export function stockDeadline(
  wanted: readonly WantedPart[],
  today: string,
  dueOn: string | null,
  orderDays: number,
): StockDeadline {
  const start = Date.parse(`${today}T00:00:00Z`);
  if (!Number.isFinite(start)) throw new OutOfRangeError("today", today, "a day like 2026-11-24");
  requireNonNegative("orderDays", orderDays);
  const left = new Map<string, number>();
  let toOrderCount = 0;
  for (const { partId, stockCount } of wanted) {
    const count = left.get(partId) ?? stockCount;
    if (count < 1) toOrderCount += 1;
    left.set(partId, count - 1);
  }
  const days = toOrderCount > 0 ? Math.ceil(orderDays) : 0;
  const readyOn = new Date(start + days * 86_400_000).toISOString().slice(0, 10);
  return {
    inStockCount: wanted.length - toOrderCount,
    toOrderCount,
    readyOn,
    isInTime: dueOn === null ? null : readyOn <= dueOn,
  };
}
