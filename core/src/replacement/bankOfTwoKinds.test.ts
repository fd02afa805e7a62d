import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { type BankCandidate, type BankQuestion, chooseBank } from "./bankChoice";
import { bankOfTwoKinds, mergedBanks } from "./bankOfTwoKinds";

const run = (question: BankQuestion, count = 3) => {
  const search = bankOfTwoKinds(question, count);
  for (;;) {
    const step = search.next();
    if (step.done) return step.value;
  }
};
const part = (id: string, more: Partial<BankCandidate> = {}): BankCandidate => ({
  ...{ id, capacitanceFarads: 1e-3, esrOhms: 0.03, ratedRippleAmpsRms: 2, ratedLifeHours: 4000, ratedVolts: 16 },
  ...{ temperatureClassCelsius: 105, diameterMetres: 0.01, heightMetres: 0.02, pitchMetres: 0.005, priceMinor: 40 },
  ...more,
});
const place = (mayStayEmpty = true, diameterMaxMetres = 0.0125) => ({
  ...{ diameterMaxMetres, heightMaxMetres: 0.025, pitchMetres: null, mayStayEmpty },
});
const question = (candidates: readonly BankCandidate[], more: Partial<BankQuestion> = {}): BankQuestion => ({
  ...{ candidates, places: [place(), place(), place()], capacitanceMinFarads: 1.8e-3, capacitanceMaxFarads: 5e-3 },
  ...{ leastRatedVolts: 12, leastTemperatureClassCelsius: 105, frequencyHertz: 100e3, rippleAmpsRms: 2 },
  ...{ ambientCelsius: 60, ratedCoreRiseKelvin: 5, esrMaxOhms: 0.05, mostLoadRatio: 1, leastLifeHours: 0 },
  ...{ mode: "price" as const, ...more },
});

describe("kits of one or two kinds", () => {
  it("leave places empty where fewer parts do: two for five", () => {
    const five = Array.from({ length: 5 }, () => place());
    const big = part("big", { capacitanceFarads: 3.3e-3, esrOhms: 0.012, ratedRippleAmpsRms: 4, priceMinor: 60 });
    const asked = { places: five, capacitanceMinFarads: 4.5e-3, capacitanceMaxFarads: 10e-3, rippleAmpsRms: 5 };
    const { ranked } = run(question([part("small"), big], { ...asked, esrMaxOhms: 0.01 }));
    // One big carries 4 A of 5; two do it for 120, five small ones for 200.
    expect(ranked[0]?.ids.filter((id) => id !== null)).toEqual(["big", "big"]);
    expect(ranked[0]).toMatchObject({ partCount: 2, priceMinor: 120 });
  });
  it("fill every place that must be, with what fits there", () => {
    const wide = part("wide", { diameterMetres: 0.012 });
    const slim = part("slim", { diameterMetres: 0.008, priceMinor: 90 });
    const places = [place(false, 0.0125), place(false, 0.01)];
    expect(run(question([wide, slim], { places })).ranked.map((one) => one.ids)).toEqual([
      ["wide", "slim"],
      ["slim", "slim"],
    ]);
    expect(run(question([wide], { places })).ranked).toEqual([]);
  });
  const some = fc.record({
    capacitanceFarads: fc.constantFrom(470e-6, 680e-6, 1e-3, 1.5e-3, 2.2e-3),
    esrOhms: fc.constantFrom(0.012, 0.02, 0.03, 0.06),
    ratedRippleAmpsRms: fc.constantFrom(0.8, 1.4, 2.2, 3),
    ratedLifeHours: fc.constantFrom(2000, 4000, 7000),
    diameterMetres: fc.constantFrom(0.008, 0.01, 0.0125),
    priceMinor: fc.integer({ min: 10, max: 90 }),
  });
  const rooms = fc.array(fc.tuple(fc.boolean(), fc.constantFrom(0.008, 0.01, 0.0125)), { minLength: 1, maxLength: 4 });
  test.prop([
    fc.array(some, { minLength: 1, maxLength: 7 }),
    rooms,
    fc.constantFrom("life" as const, "price" as const),
  ])("are never worse than the best of all kits of one or two kinds, and never break a limit", (parts, list, mode) => {
    const candidates = parts.map((one, n) => part(`p${n}`, one));
    const places = list.map(([mayStayEmpty, room]) => place(mayStayEmpty, room));
    const asked = question(candidates, { places, mode, capacitanceMinFarads: 0.9e-3 * places.length });
    const all = chooseBank(asked, 100_000).ranked;
    const best = all.find((one) => new Set(one.ids.filter((id) => id !== null)).size <= 2);
    const found = run(asked, 1).ranked[0];
    expect(found?.priceMinor).toBe(best?.priceMinor);
    expect(found && Math.floor(found.worstLifeHours)).toBe(best && Math.floor(best.worstLifeHours));
    if (found) expect(found.capacitanceFarads).toBeGreaterThanOrEqual(asked.capacitanceMinFarads * 0.999999);
  });
  it("stand in one ranking with kits of more kinds, each once", () => {
    const asked = question([part("a"), part("b", { priceMinor: 30 })]);
    const exact = chooseBank(asked, 5).ranked;
    const merged = mergedBanks("price", [exact, run(asked, 5).ranked], 50);
    expect(merged.map((one) => [...one.ids].map(String).sort().join())).toEqual([
      ...new Set(merged.map((one) => [...one.ids].map(String).sort().join())),
    ]);
    expect(merged[0]?.priceMinor).toBe(exact[0]?.priceMinor);
    expect(mergedBanks("price", [exact], 2)).toHaveLength(2);
  });
});
