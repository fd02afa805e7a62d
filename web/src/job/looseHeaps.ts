import type { StockItem } from "@pale-cap/contract";
import { type LooseChargeAct, type LooseHeap, type ReformAdvice, stockAgeYears } from "@pale-cap/core";

/** What was done with a loose part, as its charge is folded: reading leakage and re-forming put volts on it. */
export function chargeActs(item: Pick<StockItem, "acts">): readonly LooseChargeAct[] {
  return item.acts.flatMap((act): LooseChargeAct[] => {
    if (act.kind === "leakage_read" || act.kind === "reform_step") return [{ kind: "volts_applied" }];
    if (act.kind === "drained" && act.value !== null) return [{ kind: "drained", ohms: act.value }];
    if (act.kind === "volts_read" && act.value !== null) return [{ kind: "volts_read", volts: act.value }];
    return [];
  });
}

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
    chargeActs: chargeActs(item),
    isReformed: item.acts.some((one) => one.kind === "reform_ended" && one.note === ("formed" satisfies ReformAdvice)),
    isLeakageTested: last("leakage_read") !== undefined,
  };
}
