import { describe, expect, it } from "vitest";
import {
  sampleCharge,
  sampleJob,
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
    expect(ask({ readings: [volts("C2", 48)] })).toEqual({ isNeeded: true, lastVolts: 48 });
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
    expect(ask({ readings: [{ ...low, clockAheadSeconds: null }] })).toEqual({ isNeeded: true, lastVolts: 0.3 });
    expect(ask({ readings: [{ ...low, clockAheadSeconds: 600 }] }).isNeeded).toBe(true);
  });
  it("goes by the order of storing: an older clock does not put a connection before the reading", () => {
    const low = { ...volts("C1", 0.3), sequence: 1 };
    const connected = { ...sampleCharge("mains_connected", -600), sequence: 2 };
    expect(ask({ readings: [low], chargeEvents: [connected] }).isNeeded).toBe(true);
    expect(ask({ readings: [{ ...low, sequence: 3 }], chargeEvents: [connected] }).isNeeded).toBe(false);
  });
  it("does not ask on a verified store, and asks on its charged one", () => {
    const store = { energyStores: [sampleStore()] };
    const drained = [
      sampleCharge("voltage_measured", 0, { volts: 311 }),
      sampleCharge("voltage_measured", 30, { volts: 2, isMeterProved: true }),
    ];
    expect(ask({ ...store, chargeEvents: drained }).isNeeded).toBe(false);
    expect(ask({ ...store, chargeEvents: drained.slice(0, 1) }).isNeeded).toBe(true);
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
