import {
  cheapestCount,
  isBefore,
  type OrderSplit,
  orderSplitLimits,
  type Supplier,
  splitOrder,
  type WantedItem,
} from "./orderSplit";

export interface LongOrder extends OrderSplit {
  /** Whether no other way is cheaper: proven where the exact search reaches. */
  readonly isProven: boolean;
}

/**
 * Splits an order of any length. Up to six items every way is tried. Beyond, every choice of suppliers is tried with each item at
 * the cheapest of them: the best there is as long as nobody ships free from some value on, else the best that was found.
 * Items that nobody delivers are left out and named.
 *
 * @throws {OutOfRangeError} as splitOrder
 */
export function splitLongOrder(
  items: readonly WantedItem[],
  suppliers: readonly Supplier[],
  needDays: number | null,
): LongOrder {
  const isOffered = (item: WantedItem) => suppliers.some((one) => wayOf(one, item, needDays) !== null);
  const offered = items.filter(isOffered);
  const missingIds = items.filter((item) => !isOffered(item)).map((item) => item.id);
  if (offered.length === 0) return { ...nothing, missingIds, isProven: true };
  if (offered.length <= orderSplitLimits.items && suppliers.length <= orderSplitLimits.suppliers) {
    return { ...splitOrder(offered, suppliers, needDays), missingIds, isProven: true };
  }
  let best: Found | null = null;
  let feasibleCount = 0;
  for (let mask = 1; mask < 2 ** suppliers.length; mask++) {
    const found = withSuppliers(
      offered,
      suppliers.filter((_, n) => mask & (1 << n)),
      needDays,
    );
    if (!found) continue;
    feasibleCount += 1;
    if (best === null || isBefore(found.key, best.key)) best = found;
  }
  // Every offered item is delivered by somebody: the choice of all is one of those tried.
  const { key: _, ...split } = best as Found;
  return { ...split, feasibleCount, missingIds, isProven: suppliers.every((one) => one.freeFromMinor == null) };
}

const nothing = {
  ...{ lines: null, goodsMinor: null, shippingMinor: null, totalMinor: null, days: null, supplierCount: null },
  feasibleCount: 0,
};

type Found = Omit<OrderSplit, "feasibleCount" | "missingIds"> & { readonly key: readonly number[] };

function wayOf(supplier: Supplier, item: WantedItem, needDays: number | null) {
  const offer = supplier.offers.get(item.id);
  const days = offer?.days ?? supplier.days;
  const bought = offer && (needDays === null || days <= needDays) ? cheapestCount(item.count, offer) : null;
  return bought && { ...bought, days, supplierId: supplier.id, itemId: item.id };
}

/** Each item at the cheapest of these; null where one of them is not delivered. */
function withSuppliers(
  items: readonly WantedItem[],
  suppliers: readonly Supplier[],
  needDays: number | null,
): Found | null {
  const lines = items.flatMap((item) => {
    const ways = suppliers.flatMap((one) => wayOf(one, item, needDays) ?? []);
    return ways.length > 0 ? [ways.reduce((best, one) => (one.costMinor < best.costMinor ? one : best))] : [];
  });
  if (lines.length < items.length) return null;
  const goodsOf = (id: string) => lines.reduce((sum, one) => sum + (one.supplierId === id ? one.costMinor : 0), 0);
  const used = suppliers.filter((one) => lines.some((line) => line.supplierId === one.id));
  const isFree = (one: Supplier) => one.freeFromMinor != null && goodsOf(one.id) >= one.freeFromMinor;
  const shippingMinor = used.reduce((sum, one) => sum + (isFree(one) ? 0 : one.shippingMinor), 0);
  const goodsMinor = lines.reduce((sum, one) => sum + one.costMinor, 0);
  const totalMinor = goodsMinor + shippingMinor;
  const days = Math.max(...lines.map((one) => one.days));
  return {
    lines: lines.map(({ itemId, supplierId, count, unitMinor }) => ({ itemId, supplierId, count, unitMinor })),
    ...{ goodsMinor, shippingMinor, totalMinor, days, supplierCount: used.length },
    key: [totalMinor, used.length, days],
  };
}
