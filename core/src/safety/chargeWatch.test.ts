import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { sampleStore } from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { ChargeEvent, EnergyStore } from "../facts/chargeFacts";
import type { ChargeRules } from "../facts/jobRules";
import { type ChargeStateName, foldChargeState, worstChargeState } from "./chargeWatch";

const store: EnergyStore = sampleStore({ id: "c1" });
const rules: ChargeRules = { workingVolts: 10, reverifySeconds: 1800, waitSeconds: 60 };
const start = Date.parse("2026-11-23T10:00:00Z");

/** An event so many seconds after the start. */
function at(seconds: number, event: Partial<ChargeEvent> & Pick<ChargeEvent, "kind">): ChargeEvent {
  const time = new Date(start + seconds * 1000).toISOString();
  return {
    storeId: "c1",
    volts: null,
    isMeterProved: false,
    isDrainOn: false,
    lineSide: null,
    resistanceOhms: null,
    drainItem: null,
    ...sampleMoment,
    at: time,
    ...event,
  };
}
const measured = (seconds: number, volts: number, more: Partial<ChargeEvent> = {}) =>
  at(seconds, { kind: "voltage_measured", volts, isMeterProved: true, ...more });
const whole = (kind: ChargeEvent["kind"], seconds: number) => at(seconds, { kind, storeId: null });
const drain = (seconds: number, more: Partial<ChargeEvent> = {}) =>
  at(seconds, { kind: "drain_started", resistanceOhms: 10e3, ...more });
const removed = (seconds: number) => at(seconds, { kind: "drain_removed" });
const fold = (events: readonly ChargeEvent[], nowSeconds = 200, own: Partial<EnergyStore> = {}) =>
  foldChargeState({ ...store, ...own }, events, rules, start + nowSeconds * 1000);
const full = measured(0, 390);

describe("two readings without a drain", () => {
  it("verify a minute apart, and not a second before", () => {
    const first = [full, measured(30, 9)];
    expect(fold(first)).toMatchObject({
      name: "drained_once",
      waitsFor: "second_reading",
      volts: 9,
      waitUntilMilliseconds: start + 90_000,
      verifiedUntilMilliseconds: null,
    });
    expect(fold([...first, measured(89.9, 9)]).name).toBe("drained_once");
    expect(fold([...first, measured(90, 9)])).toMatchObject({
      name: "verified",
      volts: 9,
      verifiedUntilMilliseconds: start + (90 + 1800) * 1000,
    });
  });
  it("count from the first low one, however often it is read in between", () => {
    const often = [full, measured(30, 4), measured(50, 4.1), measured(70, 4.1)];
    expect(fold(often)).toMatchObject({ name: "drained_once", waitUntilMilliseconds: start + 90_000 });
    expect(fold([...often, measured(91, 4.2)]).name).toBe("verified");
  });
  it("start anew after a high one, a drain, mains, a live reading, d.c. fed in, an insulation test", () => {
    const between = [
      measured(40, 31),
      drain(40),
      whole("mains_connected", 40),
      whole("live_reading", 40),
      whole("dc_fed", 40),
      whole("insulation_test", 40),
    ];
    for (const event of between) {
      expect([event.kind, fold([full, measured(30, 4), event, measured(120, 4)]).name]).toEqual([
        event.kind,
        "drained_once",
      ]);
    }
    // What tells nothing of the charge takes nothing away.
    expect(fold([full, measured(30, 4), whole("mains_disconnected", 40), measured(120, 4)]).name).toBe("verified");
    expect(fold([full, measured(30, 4), at(40, { kind: "voltage_measured" }), measured(120, 4)]).name).toBe("verified");
  });
  it("are charged where it crept back, whichever way round the probes are", () => {
    expect(fold([full, measured(30, 9), measured(95, -31)])).toMatchObject({ name: "charged", volts: -31 });
    expect(fold([full, measured(30, 10), measured(95, 10)]).name).toBe("verified");
    expect(fold([full, measured(30, 9), measured(95, 10.01)]).name).toBe("charged");
  });
  it("do not verify what by the two of them will creep back above the limit", () => {
    // Half is back after a minute: 9 and 9.5 V end at 10, 2 and 9 V at 16.
    expect(fold([full, measured(30, 9), measured(95, 9.5)]).name).toBe("verified");
    const state = fold([full, measured(30, 2), measured(90, 9)]);
    expect(state).toMatchObject({ name: "drained_once", waitsFor: "creeps_back", verifiedUntilMilliseconds: null });
    expect(state.creepVolts).toBeCloseTo(16, 9);
  });
  it("take zeros like any other low reading", () => {
    expect(fold([measured(0, 0)]).name).toBe("drained_once");
    expect(fold([measured(0, 0), measured(61, 0)]).name).toBe("verified");
    expect(fold([measured(0, 0, { isMeterProved: false })])).toMatchObject({
      name: "unknown",
      reason: "meter_not_proved",
    });
  });
  it("are both of a proved meter", () => {
    const unproved = { isMeterProved: false };
    expect(fold([measured(30, 4, unproved), measured(95, 4)]).name).toBe("drained_once");
    expect(fold([measured(30, 4), measured(95, 4, unproved)])).toMatchObject({
      name: "unknown",
      reason: "meter_not_proved",
      volts: 4,
    });
    // The unproved one took nothing away from the first.
    expect(fold([measured(30, 4), measured(95, 4, unproved), measured(96, 4)]).name).toBe("verified");
  });
  it("belong to one store", () => {
    expect(fold([{ ...full, storeId: "c2" }]).reason).toBe("nothing_logged");
    expect(fold([measured(30, 4), measured(95, 4, { storeId: "c2" })]).name).toBe("drained_once");
  });
  it("expire", () => {
    const events = [full, measured(30, 4.2), measured(95, 4.2)];
    expect(fold(events, 95 + 1800).name).toBe("verified");
    expect(fold(events, 95.001 + 1800)).toMatchObject({ name: "unknown", reason: "verification_expired", volts: 4.2 });
  });
});

describe("the drain left on", () => {
  const on = measured(30, 2, { isDrainOn: true });
  it("verifies with one reading, and falls back when it is taken off", () => {
    expect(fold([full, drain(10), on])).toMatchObject({ name: "verified", isDrainOn: true });
    expect(fold([full, drain(10), on, removed(100)])).toMatchObject({
      name: "drained_once",
      waitsFor: "drain_removed",
      isDrainOn: false,
      waitUntilMilliseconds: start + 160_000,
      verifiedUntilMilliseconds: null,
    });
  });
  it("needs a minute and one more reading once it is off", () => {
    const off = [full, drain(10), on, removed(100)];
    expect(fold([...off, measured(159, 3)]).name).toBe("drained_once");
    expect(fold([...off, measured(160, 3)])).toMatchObject({ name: "verified", isDrainOn: false });
    expect(fold([...off, measured(160, 30)]).name).toBe("charged");
  });
  it("hangs on until it is told or a reading without it is logged", () => {
    expect(fold([drain(10), whole("mains_connected", 20)])).toMatchObject({ name: "unknown", isDrainOn: true });
    expect(fold([drain(10), whole("mains_connected", 20), removed(30)])).toMatchObject({
      name: "unknown",
      isDrainOn: false,
    });
    expect(fold([drain(10), measured(30, 300)]).isDrainOn).toBe(false);
    expect(fold([measured(30, 4), removed(40)]).name).toBe("drained_once");
  });
});

describe("the line at an X capacitor", () => {
  const line = (seconds: number, side: "plug" | "behind_fuse" | null, volts = 1) =>
    measured(seconds, volts, { lineSide: side });
  const of = (...events: ChargeEvent[]) => fold(events, 200, { kind: "x_capacitor" });
  it("is verified by one reading on each side of the fuse, without the wait", () => {
    expect(of(line(0, "plug"))).toMatchObject({ name: "drained_once", waitsFor: "other_side_of_fuse" });
    expect(of(line(0, "plug"), line(200, "plug")).name).toBe("drained_once");
    expect(of(line(0, "plug"), line(5, null)).name).toBe("drained_once");
    expect(of(line(0, "plug"), line(5, "behind_fuse")).name).toBe("verified");
    expect(of(line(0, "behind_fuse"), line(5, "plug")).name).toBe("verified");
  });
  it("starts anew with a voltage or the mains", () => {
    expect(of(line(0, "plug"), line(2, "behind_fuse", 200), line(5, "behind_fuse")).name).toBe("drained_once");
    expect(of(line(0, "plug"), whole("mains_connected", 2), line(5, "behind_fuse")).name).toBe("drained_once");
  });
});

describe("clocks", () => {
  it("have no say in the order: one that runs ahead outranks nothing", () => {
    const stored = (sequence: number, event: ChargeEvent, ahead = 0): ChargeEvent => ({
      ...event,
      sequence,
      clockAheadSeconds: ahead,
      receivedAt: new Date(Date.parse(event.at) - ahead * 1000).toISOString(),
    });
    // A bench ten minutes ahead logs 1 V; another connects the mains a minute later, by its right clock.
    const events = [
      stored(1, measured(600, 311), 600),
      stored(2, measured(600, 1), 600),
      stored(3, whole("mains_connected", 60)),
    ];
    expect(fold(events, 90)).toMatchObject({ name: "unknown", reason: "mains_connected" });
    expect(fold([...events].reverse(), 90).reason).toBe("mains_connected");
  });
  it.each([
    ["its clock runs a minute ahead", { clockAheadSeconds: 61 }, "clock_ahead"],
    ["it lies three years ahead of its receipt", { receivedAt: "2023-11-23T10:00:00Z" }, "clock_ahead"],
    ["nobody knows its clock", { clockAheadSeconds: null }, "clock_unknown"],
  ] as const)("verify nothing where %s", (_name, clock, reason) => {
    expect(fold([measured(0, 4), measured(90, 4, clock)])).toMatchObject({ name: "unknown", reason });
    expect(fold([measured(0, 4, clock), measured(90, 4)]).name).toBe("drained_once");
  });
  it("of two pages are told apart by the server's: an hour on another clock is no minute", () => {
    const other = { clockId: "other", clockAheadSeconds: -55 };
    expect(fold([measured(0, 4), measured(10, 4, other)]).name).toBe("verified");
    expect(fold([measured(0, 4, other), measured(90, 4)]).name).toBe("drained_once");
  });
  it("show a charge whatever they say", () => {
    expect(fold([{ ...full, clockAheadSeconds: 900 }]).name).toBe("charged");
  });
});

describe("while it drains", () => {
  const of = (own: Partial<EnergyStore>, events: readonly ChargeEvent[]) =>
    fold(events, 10, { capacitanceFarads: 100e-6, bleederOhms: null, ...own });
  it("predicts from what was measured, else from what is expected", () => {
    expect(of({}, [measured(0, 300), drain(9)]).predictedVolts).toBeCloseTo(300 / Math.E, 6);
    expect(of({}, [measured(0, -300), drain(9)]).predictedVolts).toBeCloseTo(300 / Math.E, 6);
    expect(of({ expectedVolts: 325 }, [drain(9)]).predictedVolts).toBeCloseTo(325 / Math.E, 6);
  });
  it("predicts nothing without a voltage, a capacitance or an age", () => {
    const draining = { name: "draining", predictedVolts: null, reason: null };
    expect(of({ expectedVolts: null }, [drain(9)])).toMatchObject(draining);
    expect(of({ capacitanceFarads: null }, [measured(0, 300), drain(9)])).toMatchObject(draining);
    expect(of({}, [measured(0, 300), drain(9, { clockAheadSeconds: null })])).toMatchObject(draining);
    expect(of({}, [measured(0, 300), drain(9), removed(9)]).predictedVolts).toBeNull();
  });
});

describe("whatever was logged", () => {
  const anyEvent = fc.oneof(
    fc
      .tuple(fc.nat(500), fc.double({ min: 0, max: 400, noNaN: true }), fc.boolean(), fc.boolean())
      .map(([s, v, isMeterProved, isDrainOn]) => measured(s, v, { isMeterProved, isDrainOn })),
    fc.tuple(fc.nat(500), fc.double({ min: 0, max: 10, noNaN: true })).map(([s, v]) => measured(s, v)),
    fc.nat(500).map((s) => whole("mains_connected", s)),
    fc.nat(500).map((s) => drain(s)),
    fc.nat(500).map((s) => removed(s)),
    fc.nat(500).map((s) => whole("mains_disconnected", s)),
  );
  test.prop([fc.array(anyEvent, { maxLength: 12 })], { numRuns: 500 })(
    "verified is only a proved low reading, and without a drain one with a minute behind it",
    (events) => {
      const state = fold(events, 600);
      if (state.name !== "verified") return;
      const readings = events.filter((event) => event.kind === "voltage_measured");
      const last = readings.at(-1);
      expect(last).toMatchObject({ isMeterProved: true });
      expect(Math.abs(last?.volts ?? 99)).toBeLessThanOrEqual(10);
      if (last?.isDrainOn) return;
      const before = events.filter(
        (event) =>
          Date.parse(event.at) <= Date.parse(last?.at ?? "") - 60_000 &&
          (event.kind === "drain_removed" || Math.abs(event.volts ?? 99) <= 10),
      );
      expect(before.length).toBeGreaterThan(0);
    },
  );
  test.prop([fc.array(anyEvent, { maxLength: 8 })])("mains at the end makes it unknown", (events) => {
    expect(fold([...events, whole("mains_connected", 501)], 600).name).toBe("unknown");
  });
});

describe("the worst of several stores", () => {
  const state = (name: ChargeStateName, until: number | null = null) => ({
    ...fold([]),
    name,
    verifiedUntilMilliseconds: until,
  });
  it.each([
    ["verified", "drained_once"],
    ["drained_once", "draining"],
    ["draining", "unknown"],
    ["unknown", "charged"],
  ] as const)("%s is better than %s, whichever comes first", (better, worse) => {
    expect(worstChargeState([state(better), state(worse)]).name).toBe(worse);
    expect(worstChargeState([state(worse), state(better)]).name).toBe(worse);
  });
  it("shows the verification that ends first, and of the same the first", () => {
    const [early, late] = [state("verified", 1000), state("verified", 2000)];
    expect(worstChargeState([late, early])).toBe(early);
    expect(worstChargeState([early, late])).toBe(early);
    const twin = state("verified", 1000);
    expect(worstChargeState([early, twin])).toBe(early);
  });
  it("is unknown where there is no store at all", () => {
    expect(worstChargeState([])).toMatchObject({ name: "unknown", reason: "nothing_logged", storeId: null });
  });
});
