import type { StockActRow, StockItem } from "@pale-cap/contract";
import { reformPlan } from "@pale-cap/core";
import { looseChargeWords, shelfWords } from "@pale-cap/wording";
import { expect, it } from "vitest";
import { heapAsks, looseHeap } from "./looseHeaps";

const now = Date.UTC(2026, 10, 30);
const rules = { "stock.shelfYears": 2, "stock.reformYears": 4, "charge.workingVolts": 10 };
const marking = {
  ...{ capacitanceFarads: 1e-3, ratedVolts: 25, temperatureClassCelsius: 105, capacitorClass: "lowz" as const },
  ...{ diameterMetres: 0.01, heightMetres: 0.02, pitchMetres: 0.005, series: "Tern", maker: null, orderCode: null },
  ...{ esrOhms: null, rippleAmpsRms: null, ratedLifeHours: null, priceMinor: null },
};
const act = (kind: StockActRow["kind"], more: Partial<StockActRow> = {}): StockActRow => ({
  ...{ id: kind, itemId: "i", kind, value: null, volts: null, seconds: null, riseKelvin: null, frequencyHertz: null },
  ...{ note: null, at: "2026-11-30T10:00:00Z", ...more },
});
const item = (dateCode: string, acts: readonly StockActRow[]): StockItem => ({
  ...{ id: "i", version: 1, cataloguePartId: null, marking, drawer: "D20", origin: "unknown", lot: null, dateCode },
  ...{ receivedOn: null, usedHours: null, note: null, setAsideReason: null, count: 1, reserved: 0, free: 1, acts },
});
const emptied = [act("drained", { value: 1000 }), act("volts_read", { value: 0 }), act("volts_read", { value: 0 })];
const asks = (dateCode: string, acts: readonly StockActRow[]) => heapAsks(item(dateCode, acts), rules, now);
const limit = reformPlan(marking).leakageLimitAmps;

it("goes on asking for what a failed test did not clear", () => {
  const [old, older] = [shelfWords("leakage_test"), shelfWords("reform")];
  expect([asks("2620", []), asks("2401", []), asks("2012", [])]).toEqual([null, old, older]);
  const read = (value: number) => [act("leakage_read", { value, volts: 25 }), ...emptied];
  expect([asks("2401", read(limit / 2)), asks("2401", read(2 * limit))]).toEqual([null, old]);
  expect(asks("2012", read(limit / 2))).toBe(older);
  const ended = (note: string) => [
    act("reform_step", { value: 1e-3, volts: 5 }),
    act("reform_ended", { note }),
    ...emptied,
  ];
  expect([asks("2012", ended("formed")), asks("2012", ended("stop_rising"))]).toEqual([null, older]);
  expect(looseHeap(item("2012", ended("stop_rising")), now).isReformed).toBe(false);
});

it("says first that it may be charged", () => {
  expect(asks("2620", [act("leakage_read", { value: 0, volts: 25 })])).toBe(looseChargeWords.covered);
  expect(asks("2620", [act("leakage_read", { value: 0, volts: 25 }), ...emptied.slice(0, 2)])).toBe(
    looseChargeWords.one_reading,
  );
});
