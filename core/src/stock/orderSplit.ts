import { OutOfRangeError } from "../errors";
import { requireNonNegative } from "../numerics/requireRange";

export interface WantedItem {
  readonly id: string;
  readonly count: number;
}

export interface SupplierOffer {
  /** From so many on a piece costs so much; ascending. */
  readonly breaks: readonly (readonly [fromCount: number, unitMinor: number])[];
  /** Null or absent: as many as are asked for. */
  readonly stock?: number | null | undefined;
  /** Null or absent: the supplier's own. */
  readonly days?: number | null | undefined;
}

export interface Supplier {
  readonly id: string;
  readonly shippingMinor: number;
  /** Shipping is free from goods of this value on; null: never. */
  readonly freeFromMinor?: number | null | undefined;
  readonly days: number;
  readonly offers: ReadonlyMap<string, SupplierOffer>;
}

export interface OrderSplit {
  /** By item: who delivers it, how many, at what. Null where something cannot be had in time. */
  readonly lines:
    | readonly {
        readonly itemId: string;
        readonly supplierId: string;
        readonly count: number;
        readonly unitMinor: number;
      }[]
    | null;
  readonly goodsMinor: number | null;
  readonly shippingMinor: number | null;
  readonly totalMinor: number | null;
  /** Until the last arrives. */
  readonly days: number | null;
  readonly supplierCount: number | null;
  readonly feasibleCount: number;
  readonly missingIds: readonly string[];
}

export const orderSplitLimits = { items: 6, suppliers: 4 } as const;

/**
 * Who delivers what: every way to give each item whole to one supplier is tried. Of an item that quantity is ordered which costs
 * least in all (a higher break may be cheaper than fewer pieces); nothing is added only to reach free shipping.
 *
 *     total = goods + shipping of each supplier used, free where its goods reach its threshold
 *
 * Then fewer suppliers, the earlier last arrival, suppliers in the order given. Exact.
 *
 * @param needDays null: whenever
 * @throws {OutOfRangeError} too many or double items or suppliers, counts that are not whole, breaks that do not rise
 */
export function splitOrder(
  items: readonly WantedItem[],
  suppliers: readonly Supplier[],
  needDays: number | null,
): OrderSplit {
  check(items, suppliers, needDays);
  const ways = items.map((item) =>
    suppliers.flatMap((supplier, index) => {
      const offer = supplier.offers.get(item.id);
      const days = offer?.days ?? supplier.days;
      const bought = offer && (needDays === null || days <= needDays) ? cheapestCount(item.count, offer) : null;
      return bought ? [{ ...bought, index, days }] : [];
    }),
  );
  const missingIds = items.filter((_, n) => ways[n]?.length === 0).map((item) => item.id);
  if (missingIds.length > 0) {
    const none = {
      lines: null,
      goodsMinor: null,
      shippingMinor: null,
      totalMinor: null,
      days: null,
      supplierCount: null,
    };
    return { ...none, feasibleCount: 0, missingIds: missingIds.sort() };
  }
  type Way = (typeof ways)[number][number];
  let best: { readonly chosen: readonly Way[]; readonly key: readonly number[]; readonly shipping: number } | null =
    null;
  let feasibleCount = 0;
  const visit = (chosen: readonly Way[]) => {
    if (chosen.length < items.length) {
      for (const way of ways[chosen.length] ?? []) visit([...chosen, way]);
      return;
    }
    feasibleCount += 1;
    const goods = suppliers.map((_, n) => chosen.reduce((sum, one) => sum + (one.index === n ? one.costMinor : 0), 0));
    const used = suppliers.map((_, n) => chosen.some((one) => one.index === n));
    const shipping = suppliers.reduce((sum, one, n) => {
      const isFree = one.freeFromMinor != null && (goods[n] as number) >= one.freeFromMinor;
      return used[n] && !isFree ? sum + one.shippingMinor : sum;
    }, 0);
    const total = goods.reduce((sum, one) => sum + one, 0) + shipping;
    const days = Math.max(...chosen.map((one) => one.days));
    const key = [total, used.filter(Boolean).length, days, ...chosen.map((one) => one.index)];
    if (best === null || isBefore(key, best.key)) best = { chosen, key, shipping };
  };
  visit([]);
  const { chosen, key, shipping } = best as unknown as NonNullable<{
    chosen: readonly Way[];
    key: readonly number[];
    shipping: number;
  }>;
  return {
    lines: chosen.map((one, n) => ({
      itemId: items[n]?.id ?? "",
      supplierId: suppliers[one.index]?.id ?? "",
      count: one.count,
      unitMinor: one.unitMinor,
    })),
    goodsMinor: (key[0] as number) - shipping,
    shippingMinor: shipping,
    totalMinor: key[0] as number,
    days: key[2] as number,
    supplierCount: key[1] as number,
    feasibleCount,
    missingIds: [],
  };
}

export function isBefore(a: readonly number[], b: readonly number[]): boolean {
  const at = a.findIndex((value, n) => value !== b[n]);
  return at >= 0 && (a[at] as number) < (b[at] as number);
}

/** Of the wanted count and every break above it the one that costs least in all; null where there are not so many. */
export function cheapestCount(
  wanted: number,
  { breaks, stock }: SupplierOffer,
): { readonly count: number; readonly unitMinor: number; readonly costMinor: number } | null {
  const first = breaks[0]?.[0] ?? 1;
  const counts = [Math.max(wanted, first), ...breaks.map(([from]) => from).filter((from) => from > wanted)];
  let best: { readonly count: number; readonly unitMinor: number; readonly costMinor: number } | null = null;
  for (const count of [...counts].sort((a, b) => a - b)) {
    if (stock != null && count > stock) continue;
    const unitMinor = breaks.filter(([from]) => from <= count).at(-1)?.[1] ?? 0;
    if (best === null || count * unitMinor < best.costMinor) best = { count, unitMinor, costMinor: count * unitMinor };
  }
  return best;
}

function check(items: readonly WantedItem[], suppliers: readonly Supplier[], needDays: number | null): void {
  const within = (name: string, list: readonly { readonly id: string }[], most: number) => {
    if (list.length < 1 || list.length > most) throw new OutOfRangeError(name, list.length, `from 1 to ${most}`);
    if (new Set(list.map((one) => one.id)).size < list.length || list.some((one) => one.id === "")) {
      throw new OutOfRangeError(name, list.length, "each named, and once");
    }
  };
  within("items", items, orderSplitLimits.items);
  within("suppliers", suppliers, orderSplitLimits.suppliers);
  const whole = (name: string, value: number, least: number) => {
    if (!Number.isInteger(value) || value < least) throw new OutOfRangeError(name, value, `whole, at least ${least}`);
  };
  for (const item of items) whole("count", item.count, 1);
  if (needDays !== null) requireNonNegative("needDays", needDays);
  for (const supplier of suppliers) {
    whole("shippingMinor", supplier.shippingMinor, 0);
    if (supplier.freeFromMinor != null) whole("freeFromMinor", supplier.freeFromMinor, 0);
    requireNonNegative("days", supplier.days);
    for (const { breaks, stock, days } of supplier.offers.values()) {
      if (breaks.length === 0) throw new OutOfRangeError("breaks", 0, "at least one");
      if (stock != null) whole("stock", stock, 0);
      if (days != null) requireNonNegative("days", days);
      breaks.forEach(([from, unit], n) => {
        whole("from", from, 1);
        whole("unitMinor", unit, 0);
        if (n > 0 && from <= (breaks[n - 1]?.[0] ?? 0)) throw new OutOfRangeError("breaks", from, "rising");
      });
    }
  }
}
