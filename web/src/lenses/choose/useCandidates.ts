import type { StockedPart, StockItem } from "@pale-cap/contract";
import { type HeapDoubt, heapOffer, type PartReach, type RejectionCode, type Section } from "@pale-cap/core";
import { useMemo } from "react";
import { useReachedQuery, useStockQuery } from "../../job/catalogueApi";
import { useJob } from "../../job/JobContext";
import { looseHeap } from "../../job/looseHeaps";

/** A loose heap that is not offered, and why. */
export interface WithheldHeap {
  readonly item: StockItem;
  readonly doubts: readonly HeapDoubt[];
}

export interface Candidates {
  /** Of the catalogue and loose ones out of the drawers, each with how many are free; undefined while they are fetched. */
  readonly parts: readonly StockedPart[] | undefined;
  readonly heapOf: ReadonlyMap<string, StockItem>;
  /** In which drawers a part lies free. */
  readonly drawersOf: ReadonlyMap<string, readonly string[]>;
  readonly withheld: readonly WithheldHeap[];
  readonly totalCount: number;
  readonly isCut: boolean;
  readonly refusedCounts: Readonly<Partial<Record<RejectionCode, number>>>;
}

const nothing: PartReach = {
  ...{ leastFarads: null, mostFarads: null, mostDiameterMetres: null, mostHeightMetres: null, mostEsrOhms: null },
  ...{ leastRippleAmps: null, leastVolts: null, leastClassCelsius: null, isLowEsrOnly: false },
  ...{ rippleAmps: null, mostCount: 1 },
};

/** What can go into a place: what the catalogue has within reach, and what lies loose in the drawers. */
export function useCandidates(reach: PartReach | null, section: Section): Candidates {
  const { houseRules, nowMilliseconds } = useJob();
  const { data, currentData } = useReachedQuery(reach ?? nothing, { skip: reach === null });
  const { data: stock } = useStockQuery();
  const reached = currentData ?? data;
  const rules = useMemo(
    () => ({
      source: houseRules["choose.partSource"],
      shelfYears: houseRules["stock.shelfYears"],
      reformYears: houseRules["stock.reformYears"],
      lowVolts: houseRules["charge.workingVolts"],
    }),
    [houseRules],
  );
  // By the day: a drawer does not age while somebody looks at it.
  const today = Math.floor(nowMilliseconds / 86_400_000) * 86_400_000;
  const loose = useMemo(() => {
    const offered: { readonly item: StockItem; readonly part: StockedPart }[] = [];
    const withheld: WithheldHeap[] = [];
    for (const item of stock ?? []) {
      if (item.cataloguePartId !== null || item.count < 1 || item.setAsideReason !== null) continue;
      const offer = heapOffer(looseHeap(item, today), section === "bulk" || section === "pfc", rules);
      if ("part" in offer) offered.push({ item, part: { ...offer.part, stockCount: item.free } });
      else withheld.push({ item, doubts: offer.doubts });
    }
    return { offered, withheld };
  }, [stock, today, section, rules]);
  return useMemo(() => {
    const near = (item: StockItem) => isNear(item, reach);
    const { voltsCount = 0, classCount = 0, notLowEsrCount = 0 } = reached?.refused ?? {};
    const refused = { voltage_low: voltsCount, temperature_class_low: classCount, not_low_esr: notLowEsrCount };
    return {
      parts: reached && [...reached.parts, ...loose.offered.map((one) => one.part)],
      heapOf: new Map(loose.offered.map((one) => [one.part.id, one.item])),
      drawersOf: drawersByPart(stock ?? []),
      withheld: loose.withheld.filter((one) => near(one.item)),
      totalCount: reached?.totalCount ?? 0,
      isCut: reached?.isCut ?? false,
      refusedCounts: Object.fromEntries(Object.entries(refused).filter(([, count]) => count > 0)),
    };
  }, [reached, loose, reach, stock]);
}

function drawersByPart(stock: readonly StockItem[]): ReadonlyMap<string, readonly string[]> {
  const drawers = new Map<string, string[]>();
  for (const { id, cataloguePartId, drawer, free, setAsideReason } of stock) {
    if (free < 1 || drawer === null || setAsideReason !== null) continue;
    const key = cataloguePartId ?? id;
    drawers.set(key, [...(drawers.get(key) ?? []), drawer]);
  }
  return drawers;
}

/** Told of only where it could have been one. */
function isNear({ marking }: StockItem, reach: PartReach | null): boolean {
  if (!reach) return false;
  const { capacitanceFarads: farads, ratedVolts } = marking;
  return (
    farads >= (reach.leastFarads ?? 0) &&
    farads <= (reach.mostFarads ?? Number.POSITIVE_INFINITY) &&
    ratedVolts >= (reach.leastVolts ?? 0)
  );
}
