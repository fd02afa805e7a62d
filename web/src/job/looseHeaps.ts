import type { StockItem } from "@pale-cap/contract";
import {
  type LooseHeap,
  looseCharge,
  looseChargeActs,
  mayGoInDrawer,
  type ReformAdvice,
  reformPlan,
  shelfNeed,
  stockAgeYears,
} from "@pale-cap/core";
import { looseChargeWords, shelfWords } from "@pale-cap/wording";

/** A heap that no catalogue lists, as core takes it; the last reading of each kind counts. */
export function looseHeap(item: StockItem, nowMilliseconds: number): LooseHeap {
  const { marking } = item;
  const last = (kind: StockItem["acts"][number]["kind"]) => item.acts.filter((one) => one.kind === kind).at(-1);
  const esr = last("esr_read");
  return {
    ...{ id: item.id, series: marking.series, origin: item.origin, usedHours: item.usedHours },
    ...{ capacitanceFarads: marking.capacitanceFarads, ratedVolts: marking.ratedVolts },
    ...{ temperatureClassCelsius: marking.temperatureClassCelsius, capacitorClass: marking.capacitorClass },
    ...{ diameterMetres: marking.diameterMetres, heightMetres: marking.heightMetres, pitchMetres: marking.pitchMetres },
    ageYears: stockAgeYears(item, nowMilliseconds),
    readings: {
      capacitanceFarads: last("capacitance_read")?.value ?? null,
      esrOhms: esr?.value ?? null,
      esrHertz: esr?.frequencyHertz ?? null,
      voltageLossRatio: last("voltage_loss_read")?.value ?? null,
    },
    chargeActs: looseChargeActs(item.acts),
    ...testsOf(item),
  };
}

/** Whether it was brought back, and whether it last drew little enough: a test that it failed clears nothing. */
function testsOf({ acts, marking }: Pick<StockItem, "acts" | "marking">) {
  const last = (kind: StockItem["acts"][number]["kind"]) => acts.filter((one) => one.kind === kind).at(-1);
  const leakage = last("leakage_read")?.value ?? null;
  return {
    isReformed: last("reform_ended")?.note === ("formed" satisfies ReformAdvice),
    isLeakageTested: leakage !== null && leakage < reformPlan(marking).leakageLimitAmps,
  };
}

interface HeapLimits {
  readonly "stock.shelfYears": number;
  readonly "stock.reformYears": number;
  readonly "charge.workingVolts": number;
}

/** What a heap asks for before anything of it goes in; null: nothing that is known here. */
export function heapAsks(item: StockItem, rules: HeapLimits, nowMilliseconds: number): string | null {
  const charge = looseCharge(looseChargeActs(item.acts), rules["charge.workingVolts"]);
  if (!mayGoInDrawer(charge)) return looseChargeWords[charge];
  if (item.origin === "salvaged") return null;
  const limits = { shelfYears: rules["stock.shelfYears"], reformYears: rules["stock.reformYears"] };
  const need = shelfNeed(item.marking, stockAgeYears(item, nowMilliseconds), limits);
  const { isReformed, isLeakageTested } = testsOf(item);
  const isMet = isReformed || (need === "leakage_test" && isLeakageTested);
  return isMet ? null : shelfWords(need);
}
