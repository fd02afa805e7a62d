import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { sampleStore } from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { ChargeEvent, EnergyStore } from "../facts/chargeFacts";
import type { ChargeRules } from "../facts/jobRules";
import { foldChargeState, worstChargeState } from "./chargeWatch";

const store: EnergyStore = sampleStore({ id: "c1" });
const rules: ChargeRules = { workingVolts: 10, reverifySeconds: 1800, mustProveMeter: true };
const start = Date.parse("2026-11-23T10:00:00Z");

/** An event so many seconds after the start. */
function at(seconds: number, event: Partial<ChargeEvent> & Pick<ChargeEvent, "kind">): ChargeEvent {
  const time = new Date(start + seconds * 1000).toISOString();
  return {
    storeId: "c1",
    volts: null,
    isMeterProved: false,
    resistanceOhms: null,
    drainItem: null,
    ...sampleMoment,
    at: time,
    ...event,
  };
}
const measured = (seconds: number, volts: number, isMeterProved = true) =>
  at(seconds, { kind: "voltage_measured", volts, isMeterProved });
const mains = (seconds: number) => at(seconds, { kind: "mains_connected", storeId: null });
const fold = (events: readonly ChargeEvent[], nowSeconds = 60) =>
  foldChargeState(store, events, rules, start + nowSeconds * 1000);

describe("charge watch", () => {
  it("knows nothing before anything was logged", () => {
    expect(fold([])).toMatchObject({ name: "unknown", reason: "nothing_logged" });
  });

  it("turns verified by a low reading of a proved meter that saw a voltage before", () => {
    expect(fold([measured(0, 311), measured(30, 4.2)])).toMatchObject({ name: "verified", volts: 4.2 });
  });

  it("stays unknown on a zero that nothing came before: the meter may not be measuring", () => {
    expect(fold([measured(0, 0)])).toMatchObject({ name: "unknown", reason: "zero_without_history" });
  });

  it("believes a small voltage that is not zero: the meter shows something", () => {
    expect(fold([measured(0, 3.1)]).name).toBe("verified");
  });

  it("stays unknown while the meter was not proved, unless the house rule asks for less", () => {
    const events = [measured(0, 311), measured(30, 2, false)];
    expect(fold(events)).toMatchObject({ name: "unknown", reason: "meter_not_proved", volts: 2 });
    expect(foldChargeState(store, events, { ...rules, mustProveMeter: false }, start + 60_000).name).toBe("verified");
  });

  it("takes a negative reading for what it is: probes the other way round", () => {
    expect(fold([measured(0, -311)])).toMatchObject({ name: "charged", volts: -311 });
  });

  it.each([
    ["mains_connected", mains(40)],
    ["live_reading", at(40, { kind: "live_reading", storeId: null })],
  ] as const)("falls back to unknown on %s by itself", (reason, event) => {
    expect(fold([measured(0, 311), measured(30, 4.2), event])).toMatchObject({ name: "unknown", reason });
  });

  it("asks for a voltage again after mains: an old non-zero reading does not vouch for a new zero", () => {
    expect(fold([measured(0, 311), mains(10), measured(30, 0)]).reason).toBe("zero_without_history");
    expect(fold([measured(0, 311), mains(10), measured(20, 300), measured(30, 0)]).name).toBe("verified");
  });

  it("turns charged again when it creeps back", () => {
    expect(fold([measured(0, 311), measured(30, 4), measured(45, 22)])).toMatchObject({ name: "charged", volts: 22 });
  });

  it("expires", () => {
    const events = [measured(0, 311), measured(30, 4.2)];
    expect(fold(events, 30 + 1800).name).toBe("verified");
    expect(fold(events, 31 + 1800)).toMatchObject({ name: "unknown", reason: "verification_expired", volts: 4.2 });
  });

  it("predicts the decay from the last reading, or from what was expected", () => {
    const drain = at(10, { kind: "drain_started", resistanceOhms: 10e3 });
    const oneTimeConstant = 11;
    expect(fold([measured(0, 300), drain], oneTimeConstant).predictedVolts).toBeCloseTo(300 / Math.E, 6);
    expect(fold([drain], oneTimeConstant).predictedVolts).toBeCloseTo(325 / Math.E, 6);
  });

  it("does not take another store's readings for its own", () => {
    expect(fold([{ ...measured(0, 311), storeId: "c2" }]).reason).toBe("nothing_logged");
  });

  it("goes by the order of storing: a clock that runs ahead outranks nothing", () => {
    const stored = (sequence: number, event: ChargeEvent, ahead = 0): ChargeEvent => ({
      ...event,
      sequence,
      clockAheadSeconds: ahead,
      receivedAt: new Date(Date.parse(event.at) - ahead * 1000).toISOString(),
    });
    // A bench ten minutes ahead logs 1 V; another connects the mains a minute later, by its right clock.
    const events = [stored(1, measured(600, 311), 600), stored(2, measured(600, 1), 600), stored(3, mains(60))];
    expect(fold(events, 90)).toMatchObject({ name: "unknown", reason: "mains_connected" });
    expect(fold([...events].reverse(), 90).reason).toBe("mains_connected");
  });

  it.each([
    ["its clock runs a minute ahead", { clockAheadSeconds: 61 }, "clock_ahead"],
    ["it lies three years ahead of its receipt", { receivedAt: "2023-11-23T10:00:00Z" }, "clock_ahead"],
    ["nobody knows its clock", { clockAheadSeconds: null }, "clock_unknown"],
  ] as const)("verifies nothing where %s", (_name, clock, reason) => {
    expect(fold([measured(0, 311), { ...measured(30, 4), ...clock }])).toMatchObject({ name: "unknown", reason });
  });

  it("still believes a clock within the minute, and counts by the server's", () => {
    const late = { ...measured(30, 4), clockAheadSeconds: 60 };
    expect(fold([measured(0, 311), late]).verifiedUntilMilliseconds).toBe(start + (30 - 60 + 1800) * 1000);
  });

  it("shows a charge whatever the clock says", () => {
    expect(fold([{ ...measured(0, 311), clockAheadSeconds: 900 }]).name).toBe("charged");
  });

  it("predicts nothing from a drain whose age nobody knows", () => {
    const drain = at(10, { kind: "drain_started", resistanceOhms: 10e3, clockAheadSeconds: null });
    expect(fold([measured(0, 300), drain], 11)).toMatchObject({ name: "draining", predictedVolts: null });
  });

  it("forgets with a live reading that a voltage was seen: a later zero has nothing before it", () => {
    const events = [measured(0, 311), at(10, { kind: "live_reading", storeId: null }), measured(30, 0)];
    expect(fold(events)).toMatchObject({ name: "unknown", reason: "zero_without_history" });
  });

  it("takes half a volt for a zero, and anything above for a voltage", () => {
    expect(fold([measured(0, 0.5)]).reason).toBe("zero_without_history");
    expect(fold([measured(0, 0.51)]).name).toBe("verified");
  });

  const anyEvent = fc.oneof(
    fc
      .tuple(fc.nat(500), fc.double({ min: 0, max: 400, noNaN: true }), fc.boolean())
      .map(([s, v, p]) => measured(s, v, p)),
    fc.nat(500).map(mains),
    fc.nat(500).map((s) => at(s, { kind: "drain_started", resistanceOhms: 1e4 })),
    fc.nat(500).map((s) => at(s, { kind: "mains_disconnected", storeId: null })),
  );
  test.prop([fc.array(anyEvent, { maxLength: 12 })])(
    "is never verified by anything but a proved low reading after the last mains",
    (events) => {
      const state = fold(events, 600);
      if (state.name !== "verified") return;
      const last = events
        .filter((event) => event.kind === "voltage_measured" || event.kind === "mains_connected")
        .at(-1);
      expect(last).toMatchObject({ kind: "voltage_measured", isMeterProved: true });
      expect(Math.abs(last?.volts ?? 99)).toBeLessThanOrEqual(10);
    },
  );
  test.prop([fc.array(anyEvent, { maxLength: 8 })])(
    "ends unknown whenever mains is the last thing logged",
    (events) => {
      expect(fold([...events, mains(501)], 600).name).toBe("unknown");
    },
  );
});

describe("worstChargeState", () => {
  const verified = fold([measured(0, 311), measured(30, 4.2)]);
  const charged = fold([measured(0, 311)]);
  it("shows the charged store before any other, and unknown when there is none", () => {
    expect(worstChargeState([verified, charged, fold([])]).name).toBe("charged");
    expect(worstChargeState([verified, fold([])]).name).toBe("unknown");
    expect(worstChargeState([]).name).toBe("unknown");
  });
  it("shows the verification that expires first", () => {
    const later = fold([measured(0, 311), measured(50, 1)]);
    expect(worstChargeState([later, verified]).volts).toBe(4.2);
  });
});

describe("what the fold leaves as it was", () => {
  it("a disconnection, and a reading without a number", () => {
    const verified = [measured(0, 311), measured(30, 4)];
    expect(fold([...verified, at(40, { kind: "mains_disconnected", storeId: null })]).name).toBe("verified");
    expect(fold([...verified, at(40, { kind: "voltage_measured", volts: null })])).toMatchObject({
      name: "verified",
      volts: 4,
    });
  });
  it("a store that nothing was logged of has no clock to run", () => {
    expect(fold([at(0, { kind: "mains_connected", storeId: "another" })])).toEqual({
      name: "unknown",
      storeId: "c1",
      volts: null,
      at: null,
      predictedVolts: null,
      reason: "nothing_logged",
      verifiedUntilMilliseconds: null,
    });
  });
});

describe("a live reading", () => {
  it("takes away that a voltage was seen: a zero after it verifies nothing", () => {
    const live = at(20, { kind: "live_reading", storeId: null });
    expect(fold([measured(0, 311), live, measured(30, 0)])).toMatchObject({
      name: "unknown",
      reason: "zero_without_history",
    });
    expect(fold([measured(0, 311), mains(20), measured(30, 0)]).reason).toBe("zero_without_history");
  });
});

describe("the edge of low", () => {
  it("is the working voltage itself: at it a proved reading verifies, above it the store is charged", () => {
    expect(fold([measured(0, 311), measured(30, 10)]).name).toBe("verified");
    expect(fold([measured(0, 311), measured(30, 10.01)])).toMatchObject({
      name: "charged",
      verifiedUntilMilliseconds: null,
    });
  });
  it("counts half a volt as a zero, and more as something seen", () => {
    expect(fold([measured(0, 0.5)]).reason).toBe("zero_without_history");
    expect(fold([measured(0, 0.51)]).name).toBe("verified");
  });
  it("gives a verification until, by the server's clock, and ends it there", () => {
    const until = start + (30 + 1800) * 1000;
    const events = [measured(0, 311), measured(30, 4)];
    expect(fold(events)).toMatchObject({ verifiedUntilMilliseconds: until, predictedVolts: null, reason: null });
    expect(fold(events, 1830).name).toBe("verified");
    expect(fold(events, 1830.001)).toMatchObject({ name: "unknown", reason: "verification_expired", volts: 4 });
  });
});

describe("while it drains", () => {
  const drain = (seconds: number, more: Partial<ChargeEvent> = {}) =>
    at(seconds, { kind: "drain_started", resistanceOhms: 10e3, ...more });
  const of = (own: Partial<EnergyStore>, events: readonly ChargeEvent[], nowSeconds = 10) =>
    foldChargeState(
      { ...store, capacitanceFarads: 100e-6, bleederOhms: null, ...own },
      events,
      rules,
      start + nowSeconds * 1000,
    );
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
  });
});

describe("the worst of several stores", () => {
  const state = (name: "verified" | "draining" | "unknown" | "charged", until: number | null = null) => ({
    ...fold([]),
    name,
    verifiedUntilMilliseconds: until,
  });
  it.each([
    ["verified", "draining"],
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
