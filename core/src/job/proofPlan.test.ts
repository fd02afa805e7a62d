import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleRailReading,
  sampleRules,
} from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { JobAct, JobActKind, ProofStepCode } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import { hostLimitVolts } from "../proof/hostLimit";
import { weightOf } from "./openPoint";
import { openPoints } from "./openPoints";
import { hotRails, proofPlan, startCondition, startsShown, startsSince } from "./proofPlan";

let sequence = 100;
const next = () => {
  sequence += 1;
  return sequence;
};
const act = (kind: JobActKind, word: string | null = null, more: Partial<JobAct> = {}): JobAct => ({
  ...{ ...sampleMoment, sequence: next(), at: "2026-12-01T10:00:00Z", kind, subjectId: null, word, note: null },
  ...more,
});
const fit = (designator = "C1") => {
  const of = (step: "removed" | "fitted") => ({
    ...{
      ...sampleMoment,
      sequence: next(),
      at: "2026-12-01T09:00:00Z",
      positionId: `at-${designator}`,
      step,
      isDone: true,
    },
  });
  return [of("removed"), of("fitted")];
};
const net = sampleNet();
const volts = (loadAmps: number, value: number, more: object = {}) =>
  sampleRailReading(net.id, { loadAmps, value, sequence: next(), ...more });
const plan = (more: Partial<JobFacts>) => proofPlan(sampleJob({ symptoms: [], readings: [], ...more }), sampleRules);
const state = (code: ProofStepCode, more: Partial<JobFacts>) =>
  plan(more).find((one) => one.code === code)?.state ?? null;
const codes = (more: Partial<JobFacts>) => plan(more).map((one) => one.code);

describe("the steps of a proof", () => {
  it("are the promise alone while nothing was changed, and none where nothing was promised", () => {
    expect(codes({})).toEqual(["unloaded", "loaded", "ripple"]);
    expect(codes({ nets: [sampleNet({ fullLoadAmps: null })] })).toEqual([]);
  });
  it("grow with what was changed: control asks for volts before the host, bulk for hold-up, mains side for insulation", () => {
    const plain = ["cold_checks", "first_power", "unloaded", "loaded", "ripple", "heat", "burn_in", "in_device"];
    expect(codes({ ticks: fit() })).toEqual(plain);
    const at = (section: "vcc" | "bulk", kind: "electrolytic" | "optocoupler" = "electrolytic") => ({
      nets: [net, sampleNet({ id: "other", section, fullLoadAmps: null })],
      positions: [samplePosition("C1", { netId: "other", kind })],
      fittedParts: [samplePart("C1")],
      ticks: fit(),
    });
    expect(codes(at("vcc"))).toContain("over_voltage");
    expect(codes(at("bulk"))).toEqual(expect.arrayContaining(["hold_up", "earth_insulation"]));
    expect(codes(at("bulk"))).not.toContain("over_voltage");
    const coupler = {
      ...at("vcc", "optocoupler"),
      positions: [samplePosition("C1", { netId: null, kind: "optocoupler" })],
    };
    expect(codes(coupler)).toContain("over_voltage");
  });
  it("stand as what was read since the last work says, never as what was read before", () => {
    const before = [volts(0, 12), volts(4, 12)];
    const ticks = fit();
    expect([state("unloaded", { ticks, readings: before }), state("loaded", { ticks, readings: before })]).toEqual([
      ...["open", "open"],
    ]);
    const after = [volts(0, 12), volts(4, 11.9), volts(4, 0.02, { quantity: "ripple_voltage" })];
    const all = { ticks, readings: after };
    expect((["unloaded", "loaded", "ripple"] as const).map((code) => state(code, all))).toEqual([
      "done",
      "done",
      "done",
    ]);
    expect(state("loaded", { ticks, readings: [volts(4, 10)] })).toBe("failed");
    expect(state("heat", { ticks, readings: [volts(0, 40, { quantity: "temperature" })] })).toBe("done");
    expect(
      state("cold_checks", { ticks, readings: [volts(0, 300, { quantity: "resistance", isPowered: false })] }),
    ).toBe("done");
    expect(state("burn_in", { ticks, acts: [act("burn_in", null, { value: 7200 })] })).toBe("done");
    expect(state("burn_in", { ticks: fit(), acts: [] })).toBe("open");
  });
  it("keep why one is not done, until it is done or that is taken back", () => {
    const ticks = fit();
    const left = act("step_not_done", "burn_in", { note: "collected today" });
    expect(plan({ ticks, acts: [left] }).find((one) => one.code === "burn_in")).toMatchObject({
      ...{ state: "not_done", note: "collected today" },
    });
    expect(state("heat", { ticks, acts: [left] })).toBe("open");
    expect(state("burn_in", { ticks, acts: [left, act("burn_in", null, { value: 60 })] })).toBe("done");
    expect(state("burn_in", { ticks, acts: [left, act("step_not_done", "taken_back", { note: "burn_in" })] })).toBe(
      "open",
    );
    // Work after it does not wipe what was decided.
    expect(state("burn_in", { ticks: [...ticks, ...fit("C2")], acts: [left] })).toBe("not_done");
  });
  it("refuse the host while a rail reads above what it bears", () => {
    const ticks = fit();
    expect([3.3, 5, 12, -12].map(hostLimitVolts)).toEqual([3.6, 5.5, 13.200000000000001, 13.200000000000001]);
    const high = { ticks, readings: [volts(0, 13.3)] };
    expect(hotRails(sampleJob(high))).toEqual([net.id]);
    expect(state("in_device", { ...high, acts: [act("tried_in_device", "good")] })).toBe("blocked");
    expect(hotRails(sampleJob({ ticks, readings: [volts(0, 13.1)] }))).toEqual([]);
    expect(hotRails(sampleJob({ ticks: fit(), readings: high.readings }))).toEqual([net.id].slice(1));
    const good = { ticks, readings: [volts(0, 12)] };
    expect(state("in_device", good)).toBe("open");
    expect(state("in_device", { ...good, acts: [act("tried_in_device", "good")] })).toBe("done");
    expect(state("in_device", { ...good, acts: [act("tried_in_device", "failed")] })).toBe("failed");
  });
  it("want volts at light load on every promised rail before the host", () => {
    const unit = {
      nets: [net, sampleNet({ id: "feedback", section: "feedback", fullLoadAmps: null })],
      positions: [samplePosition("C1", { netId: "feedback" })],
      ticks: fit(),
    };
    expect(state("over_voltage", { ...unit, readings: [volts(4, 12)] })).toBe("open");
    expect(state("over_voltage", { ...unit, readings: [volts(0.4, 12)] })).toBe("done");
    expect(state("over_voltage", { ...unit, readings: [volts(0.4, 14)] })).toBe("failed");
  });
});

describe("starts of a fault that comes and goes", () => {
  it("are counted since the last work, against how often it failed before", () => {
    const ticks = fit();
    const before = act("starts_before", null, { numbers: [3, 10] });
    const good = (count: number) => Array.from({ length: count }, () => act("cold_start", "good"));
    const unit = (acts: JobAct[]) => ({ ticks, symptoms: ["intermittent"], acts });
    const step = (acts: JobAct[]) => plan(unit(acts)).find((one) => one.code === "cold_starts");
    expect(step([])).toMatchObject({ state: "open", count: { done: 0, wanted: 10 } });
    expect(step([before, ...good(3)])).toMatchObject({ state: "open", count: { done: 3, wanted: 9 } });
    expect(step([before, ...good(9)])).toMatchObject({ state: "done" });
    expect(step([before, ...good(9), act("cold_start", "failed")])).toMatchObject({ state: "failed" });
    expect(startsShown(sampleJob(unit(good(10)))).shown?.upperRatio).toBeCloseTo(0.2589, 4);
    expect(startsShown(sampleJob(unit([]))).shown).toBeNull();
    const early = good(9);
    expect(plan({ ...unit(early), ticks: fit() }).find((one) => one.code === "cold_starts")?.count?.done).toBe(0);
  });
});

describe("a start", () => {
  const start = (word: "good" | "failed", minutes: number, celsius?: number) =>
    act("cold_start", word, { value: 60 * minutes, ...(celsius === undefined ? {} : { numbers: [celsius] }) });
  const before = (...numbers: number[]) => act("starts_before", null, { numbers });
  it("counts only where it was off as long and as cold as when it failed; a failure always does", () => {
    const counted = (...acts: JobAct[]) => startsSince(acts, startCondition(acts)).good;
    expect(counted(before(3, 10), start("good", 1), start("good", 900, 40))).toBe(2);
    const asked = before(3, 10, 3600, 8);
    expect(
      counted(asked, start("good", 54, 11), start("good", 53, 8), start("good", 60, 11.5), start("good", 60)),
    ).toBe(1);
    expect(startsSince([asked, start("failed", 1, 40)], startCondition([asked]))).toEqual({
      good: 0,
      failed: 1,
      all: 1,
    });
    const unit = {
      symptoms: ["intermittent"],
      ticks: fit(),
      acts: [asked, ...Array.from({ length: 9 }, () => start("good", 60))],
    };
    expect(plan(unit).find((one) => one.code === "cold_starts")).toMatchObject({
      state: "open",
      count: { done: 0, wanted: 9 },
    });
  });
});

describe("earth and insulation", () => {
  const unit = {
    nets: [net, sampleNet({ id: "bulk", section: "bulk", fullLoadAmps: null })],
    positions: [samplePosition("C1", { netId: "bulk" })],
    ticks: fit(),
  };
  const insulation = (ohms: number) => act("insulation_read", null, { value: ohms, numbers: [500] });
  const bond = (ohms: number) => ({
    ...{ ...sampleMoment, id: `bond-${ohms}`, sequence: next(), at: "2026-12-01T11:00:00Z", kind: "gate_check" },
    ...{ item: "earth_bond", subjectId: null, values: [ohms], word: null, note: null },
  });
  const open = (more: object) => {
    const facts = sampleJob({ ...unit, readings: [], symptoms: [], ...more });
    return openPoints(facts, sampleRules, Date.UTC(2026, 11, 1, 12), new Map(), null, []).map((one) => one.code);
  };
  it("fail by what was read last, and no reason accepts it away", () => {
    expect(state("earth_insulation", { ...unit, acts: [insulation(0.99e6)] })).toBe("failed");
    expect(state("earth_insulation", { ...unit, acts: [insulation(0.99e6), insulation(5e6)] })).toBe("done");
    expect(open({ acts: [insulation(0.99e6)] })).toContain("insulation_low");
    expect(open({ acts: [insulation(0.99e6), insulation(1e6)] })).not.toContain("insulation_low");
    // Doubly insulated, it has nothing else: twice as much.
    const double = act("protection_class", "II");
    expect(open({ acts: [double, insulation(1.99e6)] })).toContain("insulation_low");
    expect(open({ acts: [double, insulation(2e6)] })).not.toContain("insulation_low");
    expect(open({ acts: [double, act("protection_class", "I"), insulation(1e6)] })).not.toContain("insulation_low");
    expect(weightOf("insulation_low")).toBe("earth");
    const high = { powerEvents: [bond(0.31) as never] };
    expect(state("earth_insulation", { ...unit, ...high })).toBe("failed");
    expect(open(high)).toContain("earth_bond_high");
    expect(open({ powerEvents: [bond(0.31) as never, bond(0.3) as never] })).not.toContain("earth_bond_high");
    // Also of a unit that goes back as it is: it is still said.
    expect(open({ acts: [insulation(0.1e6), act("outcome", "not_repaired")] })).toContain("insulation_low");
  });
});
