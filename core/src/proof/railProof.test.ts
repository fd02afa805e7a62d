import { describe, expect, it } from "vitest";
import { sampleNet, sampleRailReading, sampleRules } from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { BoardNet } from "../board/board";
import type { JobAct, JobActKind } from "../facts/jobActs";
import type { ReworkTick } from "../facts/jobFacts";
import type { Reading } from "../readings/reading";
import { railProof } from "./railProof";

const rules = sampleRules.rail;
type Values = Parameters<typeof sampleRailReading>[1];
/** Readings in the order given; promised are 4 A at 12 V. */
const read = (...values: Values[]): readonly Reading[] =>
  values.map((more, n) => sampleRailReading("net-12", { sequence: n + 1, ...more }));
const facts = (readings: readonly Reading[], more: { ticks?: ReworkTick[]; acts?: JobAct[] } = {}) => ({
  ...{ ticks: [], acts: [], ...more, readings },
});
const proof = (...values: Values[]) => railProof(sampleNet(), facts(read(...values)), rules);
const at = "2026-11-23T11:00:00Z";
const act = (kind: JobActKind, sequence: number | null, word: string | null = null, subjectId = "net-12"): JobAct => ({
  ...{ kind, subjectId, word, note: null, ...sampleMoment, sequence, at },
});
const fitted = (sequence: number, step: ReworkTick["step"] = "fitted"): ReworkTick => ({
  ...{ positionId: "at-C9", step, isDone: true, ...sampleMoment, sequence, at },
});
const lamp = { isSeriesLamp: true, isIsolationTransformer: false, isElectronicLimiter: false };
const transformer = { isSeriesLamp: false, isIsolationTransformer: true, isElectronicLimiter: false };
const ripple = { quantity: "ripple_voltage" } as const;

describe("a load", () => {
  it("proves a promise from the house's share of it on, and below it is part load", () => {
    expect(proof({ value: 11.9, loadAmps: 3.8 }).loaded.state).toBe("passed");
    const part = proof({ value: 11.9, loadAmps: 3.79 });
    expect([part.loaded.state, part.partLoadRatio]).toEqual(["part_load", 3.79 / 4]);
    expect(proof({ value: 12.1, loadAmps: 0.001 }).loaded.state).toBe("part_load");
    expect(proof({ value: 12.1 }).loaded.state).toBe("not_measured");
    const unpromised = sampleNet({ fullLoadAmps: null });
    expect(railProof(unpromised, facts(read({ value: 12, loadAmps: 0.5 })), rules).loaded.state).toBe("passed");
  });
  it("that is part of the promise is told by the largest, of the same the last", () => {
    const told = proof({ value: 12, loadAmps: 3 }, { value: 11.9, loadAmps: 2 }, { value: 11.8, loadAmps: 3 });
    expect([told.loaded.state, told.loaded.reading?.value, told.partLoadRatio]).toEqual(["part_load", 11.8, 0.75]);
    const rippled = proof({ ...ripple, value: 0.03, loadAmps: 2 }, { ...ripple, value: 0.02, loadAmps: null });
    expect([rippled.ripple.state, rippled.ripple.reading?.value]).toEqual(["part_load", 0.03]);
    // Once the promise is read, part of it tells nothing more; a rail without a promise has no part of it.
    expect(proof({ value: 12, loadAmps: 3 }, { value: 11.9, loadAmps: 4 }).partLoadRatio).toBeNull();
    expect(proof({ value: 12, loadAmps: 3 }, { value: 8, loadAmps: 4 }).loaded.state).toBe("failed");
  });
  it("that is unknown is none, and a reading without a number decides nothing", () => {
    expect(proof({ value: 12.1, loadAmps: null }).unloaded.state).toBe("passed");
    const open = proof({ value: 12.1 }, { value: null, coarseCode: "over_range" });
    expect([open.unloaded.state, open.unloaded.reading?.value]).toEqual(["passed", 12.1]);
  });
  it("too small takes no failure away, and its ripple proves nothing", () => {
    expect(proof({ value: 8.2, loadAmps: 4 }, { value: 12.1, loadAmps: 0.1 }).loaded.state).toBe("failed");
    expect(proof({ ...ripple, value: 0.02, loadAmps: 0 }).ripple.state).toBe("part_load");
    expect(proof({ ...ripple, value: 0.02, loadAmps: 4 }).ripple.state).toBe("passed");
    expect(proof().ripple.state).toBe("not_measured");
  });
  it("tells a resistance only where load and drop carry it", () => {
    const ohms = (...values: Values[]) => proof(...values).outputResistanceOhms;
    expect(ohms({ value: 12.18 }, { value: 12.02, loadAmps: 4 })).toBeCloseTo(0.04, 10);
    expect(ohms({ value: 12.18 }, { value: 12.02, loadAmps: 0.39 })).toBeNull();
    expect(ohms({ value: 12.18 }, { value: 12.02, loadAmps: 0.4 })).toBeCloseTo(0.4, 10);
    // Three steps of a meter that shows 12.05.
    expect(ohms({ value: 12.05 }, { value: 12.021, loadAmps: 4 })).toBeNull();
    expect(ohms({ value: 12.05 }, { value: 12.019, loadAmps: 4 })).not.toBeNull();
    const small = sampleNet({ fullLoadAmps: 0.5 });
    const under = railProof(small, facts(read({ value: 12.5 }, { value: 12, loadAmps: 0.19 })), rules);
    expect(under.outputResistanceOhms).toBeNull();
  });
  it("relates load regulation to the nominal voltage, on a negative rail too", () => {
    expect(proof({ value: 12.18 }, { value: 12.02, loadAmps: 4 }).loadRegulationRatio).toBeCloseTo(0.16 / 12, 10);
    const negative = sampleNet({ nominalVolts: -12 });
    const readings = read({ value: -12.3 }, { value: -12, loadAmps: 4 });
    expect(railProof(negative, facts(readings), rules).loadRegulationRatio).toBeCloseTo(0.025, 12);
    expect(proof({ value: 12.1 }).loadRegulationRatio).toBeNull();
  });
});

describe("what was read before the last act", () => {
  const before = read({ value: 12.1 }, { value: 11.9, loadAmps: 4 }, { ...ripple, value: 0.02, loadAmps: 4 });
  it("proves nothing, and is kept for what the unit was like", () => {
    for (const step of ["fitted", "removed"] as const) {
      const after = railProof(sampleNet(), facts(before, { ticks: [fitted(10, step)] }), rules);
      expect([after.unloaded.state, after.loaded.state, after.ripple.state]).toEqual(Array(3).fill("not_measured"));
      expect(after.asReceived).toHaveLength(3);
    }
    const seen = railProof(sampleNet(), facts(before, { ticks: [fitted(10, "polarity_board_mark")] }), rules);
    expect(seen.loaded.state).toBe("passed");
    expect(railProof(sampleNet(), facts(before, { ticks: [fitted(0)] }), rules).loaded.state).toBe("passed");
  });
  it("is void for the rail whose trim was turned, and for no other", () => {
    const trimmed = (netId: string) => facts(before, { acts: [act("trim_turned", 10, null, netId)] });
    expect(railProof(sampleNet(), trimmed("net-12"), rules).loaded.state).toBe("not_measured");
    expect(railProof(sampleNet(), trimmed("net-5"), rules).loaded.state).toBe("passed");
  });
  it("still tells what was wrong, where that is asked", () => {
    const found = facts(read({ value: 8.2, loadAmps: 4 }), { ticks: [fitted(10)] });
    expect(railProof(sampleNet(), found, rules, { isOfAnyTime: true }).loaded.state).toBe("failed");
  });
});

describe("a rail that failed and reads well now", () => {
  const readings = read({ value: 9.2, loadAmps: 4 }, { value: 11.9, loadAmps: 4 });
  it("stays unexplained until an act or a picked reason, and says what it was", () => {
    const { loaded } = railProof(sampleNet(), facts(readings), rules);
    expect([loaded.state, loaded.reading?.value, loaded.failedBefore?.value]).toEqual(["unexplained", 11.9, 9.2]);
    const told = (sequence: number, netId = "net-12") =>
      railProof(sampleNet(), facts(readings, { acts: [act("retest_explained", sequence, "load_lead", netId)] }), rules)
        .loaded.state;
    expect(told(3)).toBe("passed");
    expect(told(3, "net-5")).toBe("unexplained");
    // What was told before it failed explains nothing.
    expect(told(0)).toBe("unexplained");
  });
  it("has failed while the last reading is bad", () => {
    expect(proof({ value: 11.9, loadAmps: 4 }, { value: 9.2, loadAmps: 4 }).loaded.state).toBe("failed");
  });
});

describe("limits", () => {
  const limits = (net: Partial<BoardNet>, ...values: Values[]) =>
    railProof(sampleNet(net), facts(read(...values)), rules);
  it("are the rail's own, else the house's, wider below zero", () => {
    expect(limits({ toleranceRatio: 0.02 }).unloaded.low).toBeCloseTo(11.76, 12);
    expect(limits({}).unloaded.high).toBeCloseTo(12.6, 12);
    expect(limits({ nominalVolts: -12 }).unloaded.low).toBeCloseTo(-13.2, 12);
    expect(limits({ nominalVolts: -12 }, { value: -11.2 }).unloaded.state).toBe("passed");
    expect(limits({ rippleLimitVolts: 0.05 }).ripple.high).toBe(0.05);
    expect(limits({ nominalVolts: null }, { value: 5 }).unloaded.state).toBe("no_limit");
  });
  it("of a bulk follow the mains, lower under load, and twice that in series", () => {
    const bulk = { section: "bulk", nominalVolts: 325, fullLoadAmps: null } as const;
    const { low, high } = limits(bulk).unloaded;
    expect([low, high]).toEqual([expect.closeTo(290.7, 1), expect.closeTo(355.8, 1)]);
    expect(limits(bulk).loaded.low).toBeCloseTo(0.8 * (low ?? 0), 9);
    expect(limits(bulk, { value: 299 }).unloaded.state).toBe("passed");
    const network = { arrangement: "series", behindNetId: null, chokeHenrys: null, chokeOhms: null } as const;
    expect(limits({ ...bulk, network }).unloaded.high).toBeCloseTo(2 * (high ?? 0) + 2, 9);
  });
  it("are passed at themselves and failed beyond either", () => {
    const state = (value: number) => limits({ toleranceRatio: 0.25 }, { value }).unloaded.state;
    expect([8.99, 9, 15, 15.01].map(state)).toEqual(["failed", "passed", "passed", "failed"]);
    const rippled = (value: number) =>
      limits({ rippleLimitVolts: 0.1 }, { ...ripple, value, loadAmps: 4 }).ripple.state;
    expect([0, 0.1, 0.11].map(rippled)).toEqual(["passed", "passed", "failed"]);
  });
  it("know the wrong sign", () => {
    expect(limits({}, { value: -12 }).unloaded.state).toBe("wrong_sign");
    expect(limits({ nominalVolts: -12 }, { value: 12 }).unloaded.state).toBe("wrong_sign");
    expect(limits({}, { value: 0 }).unloaded.state).toBe("failed");
  });
  it("of ripple that new parts cannot meet are a reason, never above twice the limit", () => {
    const of = (value: number, asNew: number | null) =>
      railProof(sampleNet({ rippleLimitVolts: 0.05 }), facts(read({ ...ripple, value, loadAmps: 4 })), rules, {
        asNewVolts: () => asNew,
      }).ripple.state;
    expect(of(0.088, 0.087)).toBe("as_new");
    expect(of(0.088, 0.07)).toBe("failed");
    expect(of(0.0875, 0.07)).toBe("as_new");
    expect(of(0.101, 0.09)).toBe("failed");
    expect(of(0.06, 0.05)).toBe("failed");
    expect(of(0.06, null)).toBe("failed");
    expect(of(0.04, 0.087)).toBe("passed");
    // At the load of the reading, and only where there is something to excuse.
    const asked: number[] = [];
    const asNewVolts = (amps: number) => {
      asked.push(amps);
      return 0.087;
    };
    const at = (value: number, loadAmps: number) =>
      railProof(sampleNet({ rippleLimitVolts: 0.05 }), facts(read({ ...ripple, value, loadAmps })), rules, {
        asNewVolts,
      });
    expect([at(0.04, 4), at(0.2, 1)].map((one) => one.asNewRippleVolts)).toEqual([null, null]);
    expect([at(0.2, 4.2).asNewRippleVolts, asked]).toEqual([0.087, [4.2]]);
    expect(of(0.1, 0.09)).toBe("as_new");
  });
});

describe("what the rig falsifies", () => {
  it("is a lamp's and a limiter's everything, and kept with its reason", () => {
    const through = proof({ value: 12.1, rig: lamp }, { value: 12.05 });
    expect(through.unloaded.reading?.value).toBe(12.05);
    expect(through.voided.map((one) => [one.reading.value, one.by])).toEqual([[12.1, "series_lamp"]]);
    const limiter = { isSeriesLamp: false, isIsolationTransformer: false, isElectronicLimiter: true };
    expect(proof({ value: 12.1, rig: limiter }).voided[0]?.by).toBe("electronic_limiter");
    // It neither passes nor fails anything, last or not.
    expect(proof({ value: 12.05 }, { value: 3, rig: lamp }).unloaded.state).toBe("passed");
    expect(proof({ ...ripple, value: 0.9, loadAmps: 4, rig: lamp }).ripple.state).toBe("not_measured");
    expect(proof({ value: 12.1, loadAmps: 2, rig: lamp }).loaded.state).toBe("not_measured");
  });
  it("lets volts and ripple behind a transformer stand", () => {
    expect(proof({ value: 11.9, loadAmps: 4, rig: transformer }).loaded.state).toBe("passed");
    expect(proof({ quantity: "time", value: 0.2, rig: transformer }).voided[0]?.by).toBe("isolation_transformer");
  });
});

describe("a reading of a rail", () => {
  it("is its own, powered and standing, and not a part's or another rail's", () => {
    const others: Partial<Reading>[] = [
      { targetKind: "part" },
      { targetId: "net-5" },
      { isWithdrawn: true },
      { isPowered: false },
      { quantity: "ac_voltage" },
    ];
    for (const other of others) {
      expect(proof({ value: 12.1, ...other }).unloaded.state, JSON.stringify(other)).toBe("not_measured");
    }
    expect(proof({ value: 12.1 })).toMatchObject({ netId: "net-12" });
  });
});
