import { tradeConstants } from "../constants/tradeConstants";
import type { CataloguePart } from "../replacement/rankReplacements";
import { type LooseChargeAct, looseCharge, mayGoInDrawer } from "./looseCharge";
import { type LooseGap, type LoosePart, loosePart } from "./loosePart";
import { type LooseReadings, type SalvageDoubt, salvageVerdict } from "./salvage";
import { shelfNeed } from "./shelfAge";

const { assumedLifeHours } = tradeConstants.replacement;

/** A heap that no catalogue lists, as the drawers know it. */
export interface LooseHeap extends Omit<LoosePart, "esrOhms" | "lifeHours"> {
  readonly origin: "distributor" | "salvaged" | "unknown";
  readonly usedHours: number | null;
  readonly ageYears: number | null;
  readonly readings: LooseReadings;
  readonly chargeActs: readonly LooseChargeAct[];
  /** It was tested or re-formed since it lay too long. */
  readonly isReformed: boolean;
  readonly isLeakageTested: boolean;
}

export type HeapDoubt =
  | SalvageDoubt
  | LooseGap
  | "never_salvaged_here"
  | "source"
  | "charged"
  | "reform"
  | "leakage_test";

export interface HeapRules {
  /** Which sources the house takes. */
  readonly source: "trusted" | "any" | "salvaged_measured";
  readonly shelfYears: number;
  readonly reformYears: number;
  readonly lowVolts: number;
}

/**
 * A loose heap as the ranking takes it, or all that stands against offering it. Salvaged parts count only by their own readings,
 * with the hours they have left, and never for a bulk; old stock only once it was tested or re-formed; nothing that may be charged.
 *
 * @param isBulk whether the place is across the rectified mains
 */
export function heapOffer(
  heap: LooseHeap,
  isBulk: boolean,
  rules: HeapRules,
): { readonly part: CataloguePart } | { readonly doubts: readonly HeapDoubt[] } {
  const doubts: HeapDoubt[] = [];
  const lifeHours = assumedLifeHours[heap.capacitorClass ?? "gp"];
  const isSalvaged = heap.origin === "salvaged";
  if (!isSourceTaken(heap.origin, rules.source)) doubts.push("source");
  if (isSalvaged && isBulk) doubts.push("never_salvaged_here");
  if (!mayGoInDrawer(looseCharge(heap.chargeActs, rules.lowVolts))) doubts.push("charged");
  const verdict = isSalvaged ? salvageVerdict({ ...heap, datasheetEsrOhms: null }, heap.readings, lifeHours) : null;
  doubts.push(...(verdict?.doubts ?? []));
  const need = isSalvaged ? "nothing" : shelfNeed(heap, heap.ageYears, rules);
  if (need === "reform" && !heap.isReformed) doubts.push("reform");
  if (need === "leakage_test" && !heap.isLeakageTested && !heap.isReformed) doubts.push("leakage_test");
  const part = loosePart({
    ...heap,
    esrOhms: heap.readings.esrOhms,
    lifeHours: Math.max(verdict?.hoursLeft ?? lifeHours, 1),
  });
  if ("id" in part) return doubts.length > 0 ? { doubts } : { part };
  return {
    doubts: [...new Set([...doubts, ...part.filter((gap) => gap !== "esr" || !doubts.includes("esr_not_read"))])],
  };
}

function isSourceTaken(origin: LooseHeap["origin"], source: HeapRules["source"]): boolean {
  if (source === "any" || origin === "distributor") return true;
  return source === "salvaged_measured" && origin === "salvaged";
}
