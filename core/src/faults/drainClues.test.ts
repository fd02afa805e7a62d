import { describe, expect, it } from "vitest";
import { sampleStore } from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { ChargeEvent } from "../facts/chargeFacts";
import { drainClues } from "./drainClues";

const store = sampleStore({ id: "c1" });
const at = (seconds: number, more: Partial<ChargeEvent>): ChargeEvent => ({
  kind: "voltage_measured",
  storeId: "c1",
  volts: null,
  isMeterProved: false,
  isDrainOn: false,
  lineSide: null,
  resistanceOhms: null,
  drainItem: null,
  ...sampleMoment,
  at: new Date(Date.UTC(2026, 10, 23, 10, 0, seconds)).toISOString(),
  ...more,
});
const volts = (seconds: number, value: number) => at(seconds, { volts: value });
const drain = (seconds: number) => at(seconds, { kind: "drain_started", resistanceOhms: 10e3 });
const mains = (seconds: number) => at(seconds, { kind: "mains_connected", storeId: null });
const codes = (...events: ChargeEvent[]) => drainClues(store, events, 10).map((one) => one.code);

describe("drainClues", () => {
  it("says nothing of an ordinary drain", () => {
    expect(codes(volts(0, 311), drain(5), volts(8, 18), volts(12, 2))).toEqual([]);
  });
  it("hears a converter that never started: full voltage for a minute", () => {
    expect(codes(volts(0, 311), volts(90, 296))).toEqual(["stays_full"]);
    expect(codes(volts(0, 311), volts(30, 305))).toEqual([]);
    expect(codes(volts(0, 311), volts(90, 120))).toEqual([]);
  });
  it("finds more capacitance than entered, and how much", () => {
    const [clue] = drainClues(store, [volts(0, 300), drain(0), volts(2, 300 * Math.exp(-2 / 3))], 10);
    expect(clue?.code).toBe("falls_too_slowly");
    expect(clue?.predictedVolts).toBeCloseTo(300 * Math.exp(-2), 6);
    expect(clue?.impliedFarads).toBeCloseTo(300e-6, 8);
  });
  it("names no capacitance where nothing falls at all: the path is not connected", () => {
    const [clue] = drainClues(store, [volts(0, 300), drain(0), volts(3, 300)], 10);
    expect(clue).toMatchObject({ code: "falls_too_slowly", impliedFarads: null });
  });
  it("follows a lamp's own course, and names no capacitance from it", () => {
    const item = { name: "60 W", kind: "lamp", count: 1, ohms: null, watts: 60, volts: 230 } as const;
    const lamp = at(0, { kind: "drain_started", drainItem: item });
    const [clue] = drainClues(store, [volts(0, 300), lamp, volts(2, 280)], 10);
    expect(clue).toMatchObject({ code: "falls_too_slowly", impliedFarads: null });
    expect(drainClues(store, [volts(0, 300), lamp, volts(2, 0.4)], 10)).toEqual([]);
  });
  it("counts a bleeder into the prediction", () => {
    const bled = { ...store, bleederOhms: 10e3 };
    const [clue] = drainClues(bled, [volts(0, 300), drain(0), volts(1, 300 * Math.exp(-1))], 10);
    expect(clue?.predictedVolts).toBeCloseTo(300 * Math.exp(-2), 6);
  });
  it("points at a zero from the start, until a voltage was seen", () => {
    expect(codes(volts(0, 0), volts(20, 0.2))).toEqual(["zero_from_start"]);
    expect(codes(volts(0, 0), volts(20, 12))).not.toContain("zero_from_start");
  });
  it("sees it creep back, but not through a mains connection", () => {
    expect(codes(volts(0, 311), drain(1), volts(10, 4), volts(60, 24))).toContain("creeps_back");
    expect(codes(volts(0, 311), drain(1), volts(10, 4), mains(30), volts(60, 311))).toEqual([]);
  });
  it("tells no time between two clocks", () => {
    const other = (event: ChargeEvent): ChargeEvent => ({ ...event, clockId: "clock-2" });
    expect(codes(volts(0, 311), other(volts(90, 296)))).toEqual([]);
    expect(codes(volts(0, 300), drain(0), other(volts(3, 300)))).toEqual([]);
  });
});
