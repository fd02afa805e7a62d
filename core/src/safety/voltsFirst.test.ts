import { describe, expect, it } from "vitest";
import {
  sampleCharge,
  sampleJob,
  sampleNet,
  samplePosition,
  sampleReading,
  sampleRules,
  sampleStore,
} from "../../testing/sampleJob";
import type { JobFacts } from "../facts/jobFacts";
import { jobChargeStates } from "../job/jobCharge";
import type { QuantityKind } from "../readings/reading";
import { voltsFirst } from "./voltsFirst";

const now = Date.UTC(2026, 10, 23, 10, 10);
const at = (seconds: number) => new Date(Date.UTC(2026, 10, 23, 10, 0, seconds)).toISOString();
const ask = (more: Partial<JobFacts>, quantity: QuantityKind = "esr", designator = "C1") => {
  const facts = sampleJob(more);
  const states = jobChargeStates(facts, sampleRules.charge, now);
  return voltsFirst(facts, samplePosition(designator), quantity, states, sampleRules.charge, now);
};
const volts = (designator: string, value: number, seconds = 10) =>
  sampleReading(designator, { quantity: "dc_voltage", value, measuredAt: at(seconds) });

describe("voltsFirst", () => {
  it("asks before ESR, C and ohms, not before volts", () => {
    expect((["esr", "capacitance", "resistance"] as const).every((one) => ask({}, one).isNeeded)).toBe(true);
    expect(ask({}, "dc_voltage").isNeeded).toBe(false);
  });
  it("takes one low reading for the whole net, and not a high one", () => {
    expect(ask({ readings: [volts("C2", 0.3)] }).isNeeded).toBe(false);
    expect(ask({ readings: [volts("C2", 48)] })).toEqual({ isNeeded: true, isRefused: false, lastVolts: 48 });
  });
  it("asks again after a live reading, a mains connection, or half an hour", () => {
    const live = sampleReading("C9", { isPowered: true, quantity: "dc_voltage", measuredAt: at(20) });
    expect(ask({ readings: [volts("C1", 0.3), live] }).isNeeded).toBe(true);
    expect(ask({ readings: [volts("C1", 0.3)], chargeEvents: [sampleCharge("mains_connected", 20)] }).isNeeded).toBe(
      true,
    );
    expect(ask({ readings: [volts("C1", 0.3, -1800)] }).isNeeded).toBe(true);
  });
  it("asks again where nobody knows how old a low reading is, or its clock runs ahead", () => {
    const low = volts("C1", 0.3);
    expect(ask({ readings: [low] }).isNeeded).toBe(false);
    expect(ask({ readings: [{ ...low, clockAheadSeconds: null }] })).toMatchObject({ isNeeded: true, lastVolts: 0.3 });
    expect(ask({ readings: [{ ...low, clockAheadSeconds: 600 }] }).isNeeded).toBe(true);
  });
  it("goes by the order of storing: an older clock does not put a connection before the reading", () => {
    const low = { ...volts("C1", 0.3), sequence: 1 };
    const connected = { ...sampleCharge("mains_connected", -600), sequence: 2 };
    expect(ask({ readings: [low], chargeEvents: [connected] }).isNeeded).toBe(true);
    expect(ask({ readings: [{ ...low, sequence: 3 }], chargeEvents: [connected] }).isNeeded).toBe(false);
  });
  it("does not ask on a verified store that never stood high, and asks on its charged one", () => {
    const store = { energyStores: [sampleStore({ expectedVolts: 24 })] };
    const drained = [
      sampleCharge("voltage_measured", 0, { volts: 24 }),
      sampleCharge("voltage_measured", 30, { volts: 2, isMeterProved: true }),
      sampleCharge("voltage_measured", 95, { volts: 2, isMeterProved: true }),
    ];
    expect(ask({ ...store, chargeEvents: drained }).isNeeded).toBe(false);
    expect(ask({ ...store, chargeEvents: drained.slice(0, 1) }).isNeeded).toBe(true);
  });
});

describe("what had been above 60 V", () => {
  const low = (seconds: number, more = {}) =>
    sampleCharge("voltage_measured", seconds, { volts: 2, isMeterProved: true, ...more });
  const of = (expectedVolts: number, ...chargeEvents: JobFacts["chargeEvents"]) =>
    ask({ energyStores: [sampleStore({ expectedVolts })], chargeEvents });
  // Asked ten minutes after ten o'clock.
  it("is asked again after five minutes, verified or not", () => {
    expect(of(61, low(200), low(300)).isNeeded).toBe(false);
    expect(of(61, low(200), low(299)).isNeeded).toBe(true);
    expect(of(60, low(200), low(299)).isNeeded).toBe(false);
  });
  it("is known by its store, by its net, or by what was read there", () => {
    const read = sampleCharge("voltage_measured", 0, { volts: 61 });
    expect(of(24, read, low(200), low(299)).isNeeded).toBe(true);
    expect(of(24, { ...read, volts: 60 }, low(200), low(299)).isNeeded).toBe(false);
    const onNet = (nominalVolts: number) =>
      ask({ nets: [sampleNet({ nominalVolts })], readings: [volts("C1", 0.3, 299)] }).isNeeded;
    expect([onNet(-61), onNet(60)]).toEqual([true, false]);
  });
  it("needs no more while its drain hangs on it", () => {
    expect(of(325, low(0, { isDrainOn: true })).isNeeded).toBe(false);
    expect(of(325, low(0, { isDrainOn: true }), sampleCharge("drain_removed", 20)).isNeeded).toBe(true);
  });
});

describe("ohms", () => {
  const bulk = sampleNet({ id: "net-bulk", section: "bulk", nominalVolts: 325 });
  const onBulk = { nets: [bulk], positions: [samplePosition("C1", { netId: "net-bulk" })] };
  const low = (seconds: number) => sampleCharge("voltage_measured", seconds, { volts: 2, isMeterProved: true });
  const refused = (more: Partial<JobFacts>, quantity: QuantityKind = "resistance") => {
    const facts = sampleJob(more);
    const place = facts.positions.find((one) => one.designator === "C1");
    if (!place) throw new Error("no C1");
    const states = jobChargeStates(facts, sampleRules.charge, now);
    return voltsFirst(facts, place, quantity, states, sampleRules.charge, now).isRefused;
  };
  it("are refused above the working voltage, by ohmmeter and diode test alone", () => {
    const readings = [volts("C1", 10.1)];
    const all = ["esr", "capacitance", "resistance", "diode_drop"] as const;
    expect(all.filter((one) => refused({ readings }, one))).toEqual(["resistance", "diode_drop"]);
    expect(refused({ readings: [volts("C1", 10)] })).toBe(false);
  });
  it("are refused on a store of which nothing is known, and allowed once it was read low", () => {
    const energyStores = [sampleStore()];
    expect(refused({ ...onBulk, energyStores })).toBe(true);
    expect(refused({ ...onBulk, energyStores, chargeEvents: [{ ...low(300), isMeterProved: false }] })).toBe(true);
    expect(refused({ ...onBulk, energyStores, chargeEvents: [low(300)] })).toBe(false);
    expect(refused({ ...onBulk, energyStores, chargeEvents: [sampleCharge("drain_started", 300)] })).toBe(true);
  });
  it("are refused on a bulk that nobody named, and not on an output that holds nothing", () => {
    expect(refused(onBulk)).toBe(true);
    expect(refused({})).toBe(false);
  });
});

describe("which readings answer for a part", () => {
  const own = { ...volts("C1", 0.3), targetId: "at-C1" };
  const alone = { positions: [samplePosition("C1", { netId: null }), samplePosition("C2", { netId: null })] };
  it("are asked for before what puts the meter's own source across the part, and before nothing else", () => {
    const all = ["esr", "capacitance", "voltage_loss", "resistance", "leakage_current", "temperature"] as const;
    expect(all.filter((quantity) => ask({}, quantity).isNeeded)).toEqual(all.slice(0, 4));
  });
  it("its own and those on its net, never another's without a net or on another", () => {
    expect(ask({ ...alone, readings: [volts("C1", 0.3)] }).isNeeded).toBe(false);
    // Two parts whose net nobody knows share nothing.
    const facts = sampleJob({ ...alone, readings: [volts("C2", 0.3)] });
    const [first] = facts.positions;
    if (!first) throw new Error("no position");
    expect(voltsFirst(facts, first, "esr", [], sampleRules.charge, now).isNeeded).toBe(true);
    const other = { positions: [samplePosition("C1"), samplePosition("C2", { netId: "net-other" })] };
    expect(ask({ ...other, readings: [volts("C2", 0.3)] }).isNeeded).toBe(true);
  });
  it("only DC volts, and a reading at the working voltage itself", () => {
    expect(ask({ readings: [{ ...own, quantity: "ac_voltage" }] }).isNeeded).toBe(true);
    expect(ask({ readings: [volts("C1", 10)] }).isNeeded).toBe(false);
    expect(ask({ readings: [volts("C1", -10.1)] })).toMatchObject({ isNeeded: true, lastVolts: -10.1 });
  });
  it("until a verification of that age would end, to the second", () => {
    expect(ask({ readings: [volts("C1", 0.3, 600 - 1800)] }).isNeeded).toBe(false);
    expect(ask({ readings: [volts("C1", 0.3, 600 - 1801)] }).isNeeded).toBe(true);
  });
  it("a voltage of the part's own store, not of another, and not after a live reading was told", () => {
    const energyStores = [sampleStore(), sampleStore({ id: "other", positionId: "at-C9" })];
    const of = (storeId: string) => [sampleCharge("voltage_measured", 0, { storeId, volts: 4 })];
    const asked = (chargeEvents: JobFacts["chargeEvents"]) => ask({ energyStores, chargeEvents });
    expect(asked(of("store-1")).lastVolts).toBe(4);
    expect(asked([...of("store-1"), sampleCharge("dc_fed", 5)]).lastVolts).toBeNull();
    expect(asked(of("other")).lastVolts).toBeNull();
    expect(asked([...of("store-1"), sampleCharge("live_reading", 5)])).toMatchObject({
      isNeeded: true,
      lastVolts: null,
    });
    // A bank's store is found by its net, and of a part of no net by the part alone.
    const bank = [sampleStore({ id: "bank", positionId: null, netId: "net-12" })];
    expect(ask({ energyStores: bank, chargeEvents: of("bank") }).lastVolts).toBe(4);
    const nowhere = [sampleStore({ id: "bank", positionId: null, netId: null })];
    expect(ask({ energyStores: nowhere, chargeEvents: of("bank") }).lastVolts).toBeNull();
  });
});

describe("what a probe finds on a store's part", () => {
  const states = (value: number) =>
    jobChargeStates(
      sampleJob({ energyStores: [sampleStore()], readings: [volts("C1", value)] }),
      sampleRules.charge,
      now,
    );
  it("shows a charge, but a low reading verifies nothing: the meter was not proved", () => {
    expect(states(280)[0]).toMatchObject({ name: "charged", volts: 280 });
    expect(states(1)[0]).toMatchObject({ name: "unknown", reason: "nothing_logged" });
  });
});
