import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { entryDoubts, ratingsAtSwitching } from "./catalogueEntry";
import {
  catalogueCells,
  entryKey,
  exportHeaders,
  type FileMapping,
  mapHeader,
  readCatalogueRow,
} from "./catalogueRows";
import { splitLongOrder } from "./longOrder";
import { looseCharge, mayGoInDrawer } from "./looseCharge";
import { esrVariation, isMeasured, pieceDoubts, usualMassKilograms } from "./lotSample";
import { movementOf, stockSums } from "./movements";
import { orderNeeds } from "./orderNeeds";
import { type Supplier, splitOrder } from "./orderSplit";
import { reformAdvice, reformPlan } from "./reformPlan";
import { salvageVerdict } from "./salvage";
import { dateCodeMoment, shelfNeed, stockAgeYears } from "./shelfAge";

const headers = ["Maker", "Series", "Order code", "Class", "C (uF)", "V", "T", "D mm", "L mm", "Pitch", "ESR mohm"];
const all = [...headers, "Ripple mA @100 kHz", "Life h", "Price"];
const row = ["Kelpin", "Tern", "T-471", "lowz", "470", "25", "105", "10", "16", "5", "46", "1190", "4000", "0.42"];
const mapping = (more: Partial<FileMapping> = {}, names = all): FileMapping => ({
  columns: names.map(mapHeader),
  decimalMark: ".",
  minorPerUnit: 100,
  ...more,
});
const entryOf = (cells: readonly string[], how = mapping()) => {
  const read = readCatalogueRow(cells, how);
  if ("faults" in read) throw new Error(JSON.stringify(read.faults));
  return read.entry;
};
const faultsOf = (cells: readonly string[], how = mapping()) => {
  const read = readCatalogueRow(cells, how);
  return "faults" in read ? read.faults.map(({ column, code }) => `${column} ${code}`) : [];
};
const changed = (column: number, text: string) => row.map((cell, n) => (n === column ? text : cell));

describe("a row of a catalogue file", () => {
  it("is read in the units of its headers", () => {
    expect(entryOf(row)).toEqual({
      ...{ maker: "Kelpin", series: "Tern", orderCode: "T-471", capacitorClass: "lowz", capacitanceFarads: 470e-6 },
      ...{
        ratedVolts: 25,
        temperatureClassCelsius: 105,
        diameterMetres: 0.01,
        heightMetres: 0.016,
        pitchMetres: 0.005,
      },
      ...{ esrOhms: 0.046, rippleAmpsRms: 1.19, ratedLifeHours: 4000, priceMinor: 42, printed: null },
    });
  });
  it("reads a unit in the cell, and the file's own decimal mark", () => {
    expect(entryOf(changed(4, "0.47 mF")).capacitanceFarads).toBeCloseTo(470e-6, 12);
    const comma = entryOf(changed(13, "0,42"), mapping({ decimalMark: "," }));
    expect(comma.priceMinor).toBe(42);
    expect(faultsOf(changed(13, "0,42"))).toEqual(["price other_mark"]);
    expect(faultsOf(changed(4, "4.7"), mapping({ decimalMark: "," })).sort()).toEqual([
      "capacitanceFarads other_mark",
      "price other_mark",
    ]);
  });
  it("says everything that is wrong with it, and takes nothing of it", () => {
    const bad = row.map((cell, n) => (n === 0 ? "" : n === 3 ? "wet" : n === 12 ? "long" : cell));
    expect(faultsOf(bad).sort()).toEqual(["capacitorClass not_a_class", "maker empty", "ratedLifeHours not_a_number"]);
  });
  it("refuses what no part has", () => {
    expect(faultsOf(changed(10, "0"))).toEqual(["esrOhms outside"]);
    expect(faultsOf(changed(12, "1000000000"))).toEqual(["ratedLifeHours outside"]);
    expect(faultsOf(changed(13, "47000"))).toEqual(["price outside"]);
    const farad = changed(4, "1000000").map((cell, n) => (n === 5 ? "400" : n === 7 ? "5" : cell));
    expect(faultsOf(farad)).toEqual(["capacitanceFarads too_dense"]);
    expect(faultsOf(changed(2, "x".repeat(61)))).toEqual(["orderCode too_long"]);
  });
  it("refuses a name that a table program would carry out", () => {
    for (const text of ["=1+1", "+49", "-x", "@sum"])
      expect(faultsOf(changed(1, text))).toEqual(["series like_formula"]);
  });
  const of = (least: number, most: number) =>
    fc.double({ min: least, max: most, noNaN: true }).map((x) => Number(x.toPrecision(4)));
  const rated = fc.option(fc.constantFrom(120, 1000, 10_000, 50_000), { nil: null });
  test.prop([of(1, 900), of(0.01, 5), of(0.1, 3), fc.integer({ min: 1, max: 99_999 }), rated, fc.boolean()])(
    "goes out and comes back the same, also where its sheet prints 120 Hz",
    (microfarads, ohms, amps, priceMinor, hertz, isTan) => {
      const how = mapping({}, [...exportHeaders]);
      const first = exportHeaders.map((_, n) =>
        String(
          [
            ...row.slice(0, 4),
            microfarads,
            ...row.slice(5, 10),
            isTan ? "" : ohms * 1e3,
            amps * 1e3,
            4000,
            priceMinor / 100,
            hertz ?? "",
            isTan ? 0.1 : "",
          ][n],
        ),
      );
      const entry = entryOf(first, how);
      expect(entryOf(catalogueCells(entry, 100).map(String), how)).toEqual(entry);
    },
  );
  it("is not taken for low-ESR where nobody says so", () => {
    expect(entryOf(changed(3, "")).capacitorClass).toBe("gp");
  });
  it("needs ESR or tan delta", () => {
    expect(faultsOf(changed(10, ""))).toEqual(["esrOhms no_esr"]);
  });
  it("keeps ratings at 120 Hz as printed, beside what they are at 100 kHz", () => {
    const names = [...headers.slice(0, 10), "tan d", "Ripple mA @120 Hz", "Life h", "Price"];
    const entry = entryOf(changed(10, "0.14"), mapping({}, names));
    expect(entry.printed).toEqual({
      frequencyHertz: 120,
      esrOhms: null,
      rippleAmpsRms: 1.19,
      dissipationFactorRatio: 0.14,
    });
    // 0.14/(2 pi 120 470e-6) = 395 mohm at 120 Hz; far less at 100 kHz. Up to 680 uF 120 Hz carry 0.55 of 100 kHz.
    expect(entry.rippleAmpsRms).toBeGreaterThan(1.19 * 1.3);
    expect(entry.esrOhms).toBeGreaterThan(0.02);
    expect(entry.esrOhms).toBeLessThan(0.35);
    expect(faultsOf(changed(10, "14"), mapping({}, names))).toEqual(["dissipationFactorRatio outside"]);
  });
  it("reads what its own ratings column says of the frequency", () => {
    const names = [...all, "Rating Hz"];
    expect(entryOf([...row, "120"], mapping({}, names)).printed?.frequencyHertz).toBe(120);
    expect(faultsOf([...row, "7"], mapping({}, names))).toEqual(["ratingHertz outside"]);
  });
});

describe("headers", () => {
  it.each([
    ["Capacitance [µF]", "capacitanceFarads", 1e-6],
    ["cap nF", "capacitanceFarads", 1e-9],
    ["ESR", "esrOhms", 1],
    ["Ripple Current (A)", "rippleAmpsRms", 1],
    ["Diameter (cm)", "diameterMetres", 1e-2],
    ["height", "heightMetres", 1e-3],
    ["load life kh", "ratedLifeHours", 1e3],
    ["Order_No", "orderCode", 1],
  ])("%s", (text, column, factor) => {
    expect(mapHeader(text)).toMatchObject({ column, factor });
  });
  it("are asked about where nobody can tell", () => {
    expect(mapHeader("Bestand")).toBeNull();
    expect(mapHeader("")).toBeNull();
  });
  it("say at which frequency", () => {
    expect(mapHeader("Ripple mA @ 120Hz")?.hertz).toBe(120);
    expect(mapHeader("ESR mohm @100kHz")?.hertz).toBe(100e3);
  });
});

describe("what is printed at another frequency", () => {
  const part = {
    ...{ capacitanceFarads: 22e-6, ratedVolts: 50, capacitorClass: "lowz" as const },
    ...{ diameterMetres: 6.3e-3, heightMetres: 11e-3 },
  } as const;
  it("is converted by the multipliers, ripple exactly", () => {
    const printed = { frequencyHertz: 120, esrOhms: null, rippleAmpsRms: 0.42, dissipationFactorRatio: 0.1 };
    expect(ratingsAtSwitching(part, printed)?.rippleAmpsRms).toBeCloseTo(1, 9);
  });
  it("counts as it is from 10 kHz on, and is nothing without a ripple or an ESR", () => {
    const printed = { frequencyHertz: 10e3, esrOhms: 0.5, rippleAmpsRms: 0.3, dissipationFactorRatio: null };
    expect(ratingsAtSwitching(part, printed)?.esrOhms).toBe(0.5);
    expect(ratingsAtSwitching(part, { ...printed, rippleAmpsRms: null })).toBeNull();
    expect(ratingsAtSwitching(part, { ...printed, esrOhms: null })).toBeNull();
    const low = ratingsAtSwitching(part, { ...printed, esrOhms: 10, frequencyHertz: 120 })?.esrOhms ?? 0;
    expect(low).toBeLessThan(5);
    expect(low).toBeGreaterThan(0.2);
  });
  it("has one key, whatever the case", () => {
    const key = (maker: string, orderCode: string) => entryKey({ maker, series: "S", orderCode });
    expect(key(" Kelpin", "a1")).toBe(key("kelpin", "A1 "));
    expect(key("a", "bc")).not.toBe(key("ab", "c"));
  });
  it("doubts a can by its energy too", () => {
    const bulk = {
      ...entryOf(row),
      capacitanceFarads: 470e-6,
      ratedVolts: 450,
      diameterMetres: 0.02,
      heightMetres: 0.02,
    };
    // 47.6 J in 6.3 cm3.
    expect(entryDoubts(bulk)).toEqual([{ field: "capacitanceFarads", code: "too_dense", limits: null }]);
    expect(entryDoubts({ ...bulk, diameterMetres: 0.035, heightMetres: 0.05 })).toEqual([]);
  });
});

describe("old stock", () => {
  const now = Date.UTC(2026, 10, 30);
  const rules = { shelfYears: 2, reformYears: 4 };
  const liquid = { capacitorClass: "lowz", ratedVolts: 25 } as const;
  it("reads week and year of a date code", () => {
    expect(dateCodeMoment("2431", now)).toBe(Date.UTC(2024, 6, 29));
    expect(dateCodeMoment("2024-W31", now)).toBe(Date.UTC(2024, 6, 29));
    expect(dateCodeMoment("2101", now)).toBe(Date.UTC(2021, 0, 4));
    for (const code of ["2453x", "2454", "2400", "H7K", "2701"]) expect(dateCodeMoment(code, now)).toBeNull();
  });
  it("counts from the code, else from the day it came", () => {
    expect(stockAgeYears({ dateCode: "2448", receivedOn: "2026-01-01" }, now)).toBeCloseTo(2.01, 1);
    expect(stockAgeYears({ dateCode: "H7", receivedOn: "2025-11-30" }, now)).toBeCloseTo(1, 2);
    expect(stockAgeYears({ dateCode: null, receivedOn: null }, now)).toBeNull();
  });
  it("asks for a leakage test, then for re-forming; high volts at once", () => {
    expect(shelfNeed(liquid, 2, rules)).toBe("nothing");
    expect(shelfNeed(liquid, 2.1, rules)).toBe("leakage_test");
    expect(shelfNeed(liquid, 4.1, rules)).toBe("reform");
    expect(shelfNeed({ ...liquid, ratedVolts: 160 }, 2.1, rules)).toBe("reform");
    expect(shelfNeed({ ...liquid, ratedVolts: 100 }, 2.1, rules)).toBe("leakage_test");
    expect(shelfNeed(liquid, null, rules)).toBe("not_known");
    expect(shelfNeed({ ...liquid, capacitorClass: "polymer" }, null, rules)).toBe("nothing");
  });
});

describe("re-forming", () => {
  const plan = reformPlan({ capacitanceFarads: 120e-6, ratedVolts: 400, capacitorClass: "lowz" });
  it("lets 12 mA into a 400 V part through 33 kilohm", () => {
    expect(plan.seriesOhms).toBeCloseTo(33e3, 6);
    expect(plan.mostAmps).toBeCloseTo(12.1e-3, 4);
    expect(plan.resistorWatts).toBeCloseTo(9.7, 2);
    expect(plan.stepVolts).toEqual([100, 200, 300, 360, 400]);
    expect(reformPlan({ capacitanceFarads: 1e-3, ratedVolts: 12.5, capacitorClass: "gp" }).seriesOhms).toBeCloseTo(
      1e3,
      6,
    );
  });
  const limit = plan.leakageLimitAmps;
  const reading = (stepVolts: number, atSeconds: number, leakageAmps: number, riseKelvin: number | null = null) => ({
    ...{ stepVolts, atSeconds, leakageAmps, riseKelvin },
  });
  it("goes on when the current is low, or from half the volts on when half an hour is over", () => {
    expect(reformAdvice(plan, [])).toBe("begin");
    expect(reformAdvice(plan, [reading(100, 60, limit * 0.99)])).toBe("next_step");
    expect(reformAdvice(plan, [reading(100, 4000, limit * 2)])).toBe("wait");
    expect(reformAdvice(plan, [reading(200, 1799, limit * 2)])).toBe("wait");
    expect(reformAdvice(plan, [reading(200, 1800, limit * 2)])).toBe("next_step");
  });
  it("stops where the current rises or the can warms", () => {
    expect(reformAdvice(plan, [reading(200, 10, limit), reading(200, 20, limit * 1.01)])).toBe("stop_rising");
    // At the next volts the current begins higher: that is no rise.
    expect(reformAdvice(plan, [reading(200, 10, limit), reading(300, 20, limit * 3)])).toBe("wait");
    expect(reformAdvice(plan, [reading(400, 10, limit / 2, 10.1)])).toBe("stop_hot");
    expect(reformAdvice(plan, [reading(400, 10, limit / 2, 10)])).toBe("wait");
  });
  it("is done after an hour at the rated volts, below the limit", () => {
    expect(reformAdvice(plan, [reading(400, 3599, limit / 9)])).toBe("wait");
    expect(reformAdvice(plan, [reading(400, 3600, limit * 0.99)])).toBe("formed");
    expect(reformAdvice(plan, [reading(400, 3600, limit)])).toBe("stop_not_forming");
  });
});

describe("the charge of a loose part", () => {
  const on = { kind: "volts_applied" } as const;
  const drained = { kind: "drained", ohms: 1e3 } as const;
  const read = (volts: number) => ({ kind: "volts_read", volts }) as const;
  it("is covered until it was drained and read low twice", () => {
    expect(looseCharge([], 2)).toBe("never_charged");
    expect(looseCharge([on], 2)).toBe("covered");
    expect(looseCharge([on, read(0.1), read(0.1)], 2)).toBe("covered");
    expect(looseCharge([on, drained], 2)).toBe("covered");
    expect(looseCharge([on, drained, read(1)], 2)).toBe("one_reading");
    expect(looseCharge([on, drained, read(1), read(-2)], 2)).toBe("two_readings");
  });
  it("begins anew with volts, with a reading above the limit, and with another draining", () => {
    const low = [on, drained, read(1), read(1)];
    expect(looseCharge([...low, on], 2)).toBe("covered");
    expect(looseCharge([...low, on, read(1), read(1)], 2)).toBe("covered");
    expect(looseCharge([...low, read(-2.1)], 2)).toBe("covered");
    expect(looseCharge([...low, read(2.1), read(1), read(1)], 2)).toBe("covered");
    expect(looseCharge([on, drained, read(1), drained, read(1)], 2)).toBe("one_reading");
    expect(looseCharge([read(1), drained], 2)).toBe("never_charged");
    expect(looseCharge([read(30)], 2)).toBe("covered");
  });
  it("lets only an empty part into a drawer", () => {
    expect(
      ["never_charged", "covered", "one_reading", "two_readings"].filter((one) => mayGoInDrawer(one as never)),
    ).toEqual(["never_charged", "two_readings"]);
  });
});

describe("a salvaged part", () => {
  const part = {
    ...{
      capacitanceFarads: 1e-3,
      ratedVolts: 16,
      capacitorClass: "lowz" as const,
      diameterMetres: null,
      heightMetres: null,
    },
    ...{ datasheetEsrOhms: 0.04, usedHours: 1000, ageYears: null },
  } as const;
  // Typical at 100 kHz: 0.7 of the maximum.
  const read = { capacitanceFarads: 0.95e-3, esrOhms: 0.0335, esrHertz: 100e3, voltageLossRatio: null };
  it("is offered by its own readings, with the hours that are left", () => {
    expect(salvageVerdict(part, read, 4000)).toMatchObject({ doubts: [], hoursLeft: 3000 });
    expect(salvageVerdict(part, { ...read, esrOhms: 0.0337 }, 4000).doubts).toEqual(["esr_high"]);
    expect(salvageVerdict(part, { ...read, capacitanceFarads: 0.89e-3 }, 4000).doubts).toEqual(["capacitance_low"]);
    expect(salvageVerdict(part, { ...read, voltageLossRatio: 0.03 }, 4000).doubts).toEqual(["voltage_loss_high"]);
    expect(salvageVerdict(part, { ...read, capacitanceFarads: null, esrOhms: null }, 4000).doubts).toEqual([
      "capacitance_not_read",
      "esr_not_read",
    ]);
  });
  it("is not offered without hours beyond three years, nor when they are used up", () => {
    const unknown = (ageYears: number | null) => salvageVerdict({ ...part, usedHours: null, ageYears }, read, 20_000);
    expect(unknown(2).hoursLeft).toBe(20_000 - 2 * 2920);
    expect(unknown(3.1).doubts).toEqual(["age_not_known"]);
    expect(unknown(null).doubts).toEqual(["age_not_known"]);
    expect(salvageVerdict({ ...part, usedHours: 4000 }, read, 4000)).toMatchObject({
      doubts: ["life_used_up"],
      hoursLeft: 0,
    });
  });
});

describe("movements of a drawer", () => {
  const sums = { count: 3, reserved: 2, free: 1 };
  it("sum up, and take nothing that is promised", () => {
    expect(movementOf("reserved", 1, sums)).toEqual({ countDelta: 0, reservedDelta: 1 });
    expect(movementOf("reserved", 2, sums)).toBe("promised_elsewhere");
    expect(movementOf("fitted", 1, sums, true)).toEqual({ countDelta: -1, reservedDelta: -1 });
    expect(movementOf("fitted", 1, { count: 2, reserved: 2, free: 0 })).toBe("promised_elsewhere");
    expect(movementOf("put_back", 1, sums, true)).toEqual({ countDelta: 1, reservedDelta: 1 });
    expect(movementOf("scrapped", 4, sums)).toBe("none_left");
    expect(movementOf("scrapped", 2, sums)).toBe("promised_elsewhere");
    expect(movementOf("counted", 5, sums)).toEqual({ countDelta: 2, reservedDelta: 0 });
    expect(movementOf("counted", 1, sums)).toBe("promised_elsewhere");
    expect(movementOf("counted", 0, { count: 3, reserved: 0, free: 3 })).toEqual({ countDelta: -3, reservedDelta: 0 });
    expect(movementOf("released", 3, sums)).toBe("not_reserved");
    expect(movementOf("released", 2, sums)).toEqual({ countDelta: 0, reservedDelta: -2 });
    for (const pieces of [0, 1.5, -1, Number.NaN]) expect(movementOf("received", pieces, sums)).toBe("not_whole");
  });
  const kinds = ["received", "fitted", "put_back", "scrapped", "counted", "reserved", "released"] as const;
  const acts = fc.array(fc.tuple(fc.constantFrom(...kinds), fc.integer({ min: 0, max: 5 }), fc.boolean()), {
    maxLength: 40,
  });
  test.prop([acts])("never take a sum below zero, in whatever order they come", (asked) => {
    const done: { countDelta: number; reservedDelta: number }[] = [];
    for (const [kind, pieces, isReserved] of asked) {
      const moved = movementOf(kind, pieces, stockSums(done), isReserved);
      if (typeof moved === "object") done.push({ ...moved });
      const { count, reserved, free } = stockSums(done);
      expect(Math.min(count, reserved, free)).toBeGreaterThanOrEqual(0);
      expect(free).toBe(count - reserved);
    }
  });
});

describe("what is to be ordered", () => {
  const rules = { leadDays: 5, service: 0.95, orderCostMinor: 500, holdRatioPerYear: 0.2 };
  const place = (n: number) => ({ cataloguePartId: "a", jobId: `j${n}`, positionId: `p${n}` });
  const part = { cataloguePartId: "a", free: 1, onOrder: 1, usedCount: 0, usedDays: 365, priceMinor: 40 };
  it("is what open jobs lack beyond what is free and on its way", () => {
    expect(orderNeeds([place(1), place(2)], [part], rules)).toEqual([]);
    expect(orderNeeds([place(1), place(2), place(3)], [part], rules)).toMatchObject([
      { forJobsCount: 1, forShelfCount: 0, count: 1 },
    ]);
  });
  it("is what fell to its reorder point, and never what nobody uses", () => {
    const used = { ...part, free: 0, onOrder: 0, usedCount: 20 };
    const [need] = orderNeeds([], [used], rules);
    expect(need?.forShelfCount).toBeGreaterThan(0);
    expect(need?.reorderPoint).toBeGreaterThanOrEqual(1);
    expect(orderNeeds([], [{ ...used, usedCount: 0 }], rules)).toEqual([]);
    expect(orderNeeds([], [{ ...used, free: 200 }], rules)).toEqual([]);
    // What the jobs take first does not lie there for the shelf.
    expect(
      orderNeeds([place(1)], [{ ...used, free: (need?.reorderPoint ?? 0) + 1 }], rules)[0]?.forShelfCount,
    ).toBeGreaterThan(0);
  });
});

describe("a long order", () => {
  const offer = (unit: number, days?: number) => ({ breaks: [[1, unit]] as [number, number][], days: days ?? null });
  const items = Array.from({ length: 8 }, (_, n) => ({ id: `i${n}`, count: n + 1 }));
  const shop = (id: string, unit: (n: number) => number, shippingMinor: number): Supplier => ({
    ...{ id, shippingMinor, days: 3, freeFromMinor: null },
    offers: new Map(items.map((item, n) => [item.id, offer(unit(n))])),
  });
  const two = [shop("x", (n) => (n % 2 ? 10 : 20), 100), shop("y", (n) => (n % 2 ? 20 : 10), 100)];
  it("takes one supplier where the second ship costs more than it saves", () => {
    // x alone: odd places 10 each (2+4+6+8 = 20 pieces), even 20 (16 pieces): 520 + 100.
    expect(splitLongOrder(items, two, null)).toMatchObject({
      totalMinor: 10 * 36 + 200,
      supplierCount: 2,
      isProven: true,
    });
    const dear = two.map((one) => ({ ...one, shippingMinor: 400 }));
    expect(splitLongOrder(items, dear, null)).toMatchObject({ totalMinor: 520 + 400, supplierCount: 1 });
  });
  it("agrees with the exact search where that reaches, and says where it is not proven", () => {
    const six = items.slice(0, 6);
    expect(splitLongOrder(six, two, null)).toMatchObject({ ...splitOrder(six, two, null), isProven: true });
    const free = two.map((one) => ({ ...one, freeFromMinor: 300 }));
    expect(splitLongOrder(items, free, null)).toMatchObject({ isProven: false });
  });
  it("names what nobody delivers, also in time, and orders the rest", () => {
    const more = [...items, { id: "none", count: 1 }];
    expect(splitLongOrder(more, two, null)).toMatchObject({ missingIds: ["none"], totalMinor: 560 });
    expect(splitLongOrder(more, two, 2)).toMatchObject({ missingIds: more.map((one) => one.id), lines: null });
  });
});

describe("a sample of a lot", () => {
  const promised = { diameterMetres: 10e-3, heightMetres: 20e-3, esrOhms: 0.04, capacitanceFarads: 1e-3 };
  const piece = {
    ...{ massKilograms: 2.4e-3, diameterMetres: 10.4e-3, heightMetres: 20e-3 },
    ...{ esrOhms: 0.04, capacitanceFarads: 0.8e-3 },
  };
  it("weighs a can by its volume", () => {
    expect(usualMassKilograms(promised)).toBeCloseTo(2.356e-3, 6);
    expect(usualMassKilograms({ diameterMetres: 18e-3, heightMetres: 35.5e-3 })).toBeCloseTo(13.55e-3, 5);
  });
  it("says what is not as promised", () => {
    const doubts = (more: object) => pieceDoubts({ ...piece, ...more }, promised);
    expect(doubts({})).toEqual([]);
    expect(doubts({ massKilograms: 1.7e-3 })).toEqual(["hollow"]);
    expect(doubts({ massKilograms: 1.9e-3 })).toEqual(["mass_off"]);
    expect(doubts({ heightMetres: 19.4e-3 })).toEqual(["size_off"]);
    expect(doubts({ esrOhms: 0.0401 })).toEqual(["esr_high"]);
    expect(doubts({ capacitanceFarads: 1.21e-3 })).toEqual(["capacitance_off"]);
    const nothing = {
      massKilograms: null,
      diameterMetres: null,
      heightMetres: null,
      esrOhms: null,
      capacitanceFarads: null,
    };
    expect(pieceDoubts(nothing, promised)).toEqual([]);
    expect([isMeasured(nothing), isMeasured({ ...nothing, esrOhms: 1 })]).toEqual([false, true]);
  });
  it("tells how far ESR scatters, from three pieces on", () => {
    const of = (...ohms: number[]) => esrVariation(ohms.map((esrOhms) => ({ ...piece, esrOhms })));
    expect(of(0.03, 0.04)).toBeNull();
    expect(of(0.9, 1, 1.1)).toBeCloseTo(0.1, 9);
  });
});
