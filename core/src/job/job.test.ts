import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  sampleRailReading,
  sampleReading,
  sampleRules,
  sampleStore,
} from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { ChargeEvent } from "../facts/chargeFacts";
import type { JobFacts, Lens, ReworkStep, ReworkTick } from "../facts/jobFacts";
import { jobChargeState } from "./jobCharge";
import { type LensState, lensProgress, lensReached } from "./lensProgress";
import { openPoints } from "./openPoints";
import { doneSteps } from "./rework";

const now = Date.parse("2026-11-23T12:00:00Z");
const tick = (step: ReworkStep, isDone = true, minute = 0): ReworkTick => ({
  positionId: "at-C1",
  step,
  isDone,
  sequence: minute,
  at: new Date(Date.UTC(2026, 10, 23, 11, minute)).toISOString(),
});
const volts = (value: number, minutesAgo: number, isMeterProved = true): ChargeEvent => ({
  kind: "voltage_measured",
  storeId: "store",
  volts: value,
  isMeterProved,
  resistanceOhms: null,
  drainItem: null,
  ...sampleMoment,
  at: new Date(now - minutesAgo * 60_000).toISOString(),
});
const store = sampleStore({ id: "store", positionId: null });
const bad = [sampleReading("C1", { value: 0.6 }), sampleReading("C2", { value: 0.034 })];
const replaced: Partial<JobFacts> = {
  readings: bad,
  plans: [{ positionId: "at-C1", cataloguePartId: "x" }],
  fittedParts: [
    samplePart("C1", { removedAt: "2026-11-23T11:00:00Z" }),
    samplePart("C1", { id: "fresh", origin: "replacement" }),
    samplePart("C2"),
  ],
};
const allTicks = [tick("removed"), tick("fitted"), tick("polarity_board_mark"), tick("polarity_part_mark")];
const codes = (job: JobFacts) => openPoints(job, sampleRules, now).map((point) => point.code);

describe("openPoints", () => {
  it("holds a bad part open until it is replaced and its polarity confirmed twice", () => {
    expect(codes(sampleJob({ readings: bad }))).toContain("part_not_replaced");
    expect(codes(sampleJob({ ...replaced, ticks: [tick("removed")] }))).toContain("part_not_refitted");
    expect(codes(sampleJob({ ...replaced, ticks: allTicks.slice(0, 3) }))).toContain("polarity_unconfirmed");
    const closed = codes(sampleJob({ ...replaced, ticks: allTicks }));
    expect(closed.filter((code) => code.startsWith("part_") || code.startsWith("polarity_"))).toEqual([]);
  });
  it("sees a stripe that contradicts the board's mark even when both were ticked", () => {
    const fittedParts = [
      samplePart("C1", { removedAt: "2026-11-23T11:00:00Z" }),
      samplePart("C1", { id: "fresh", origin: "replacement", stripeDegrees: 270 }),
      samplePart("C2"),
    ];
    expect(codes(sampleJob({ ...replaced, fittedParts, ticks: allTicks }))).toContain("polarity_conflict");
  });
  it("keeps a promised rail open until it was measured under load, inside its limits, with ripple", () => {
    expect(codes(sampleJob())).toEqual(["rail_not_loaded", "ripple_not_measured"]);
    const readings = [
      sampleRailReading("net-12", { value: 12.1 }),
      sampleRailReading("net-12", { value: 11.2, loadAmps: 4 }),
      sampleRailReading("net-12", { quantity: "ripple_voltage", value: 0.3, loadAmps: 4 }),
    ];
    expect(codes(sampleJob({ readings }))).toEqual(["rail_outside_limits", "ripple_above_limit"]);
  });
  it("asks nothing of a rail that nobody promised", () => {
    expect(codes(sampleJob({ nets: [sampleNet({ fullLoadAmps: null })] }))).toEqual([]);
  });
  it("holds stored charge open until it is verified, and keys stay the same over recomputation", () => {
    const job = sampleJob({ energyStores: [store], nets: [] });
    expect(codes(job)).toEqual(["charge_not_verified"]);
    expect(openPoints(job, sampleRules, now)).toEqual(openPoints(job, sampleRules, now + 1000));
    expect(codes({ ...job, chargeEvents: [volts(311, 5), volts(2, 3)] })).toEqual([]);
  });
});

describe("lensProgress", () => {
  const states = (job: JobFacts): Partial<Record<Lens, LensState>> =>
    Object.fromEntries(lensProgress(job, sampleRules, now).map((one) => [one.lens, one.state]));

  it("starts untouched and waits for what must come first", () => {
    const empty = sampleJob({ complaint: null, symptoms: [], nets: [], positions: [], fittedParts: [] });
    expect(states(empty)).toMatchObject({
      intake: "untouched",
      inspect: "untouched",
      measure: "waiting",
      choose: "waiting",
    });
    expect(lensReached(lensProgress(empty, sampleRules, now))).toBe("intake");
  });
  it("moves on with what was entered, not with what was visited", () => {
    expect(lensReached(lensProgress(sampleJob(), sampleRules, now))).toBe("inspect");
    expect(lensReached(lensProgress(sampleJob({ readings: bad }), sampleRules, now))).toBe("choose");
    expect(lensReached(lensProgress(sampleJob({ ...replaced, ticks: allTicks }), sampleRules, now))).toBe("rework");
  });
  it("calls making safe stale once mains or a live reading overtook the verification", () => {
    const drained = { energyStores: [store], chargeEvents: [volts(311, 5), volts(2, 3)] };
    expect(states(sampleJob(drained))["make-safe"]).toBe("done");
    const live = sampleRailReading("net-12", { value: 12, measuredAt: new Date(now - 60_000).toISOString() });
    expect(states(sampleJob({ ...drained, readings: [live] }))["make-safe"]).toBe("stale");
  });
  it("is done reworking a place after all four steps, not after three", () => {
    const rework = (ticks: JobFacts["ticks"]) =>
      lensProgress(sampleJob({ ...replaced, ticks }), sampleRules, now).find((one) => one.lens === "rework");
    expect(rework(allTicks.slice(0, -1))).toMatchObject({ state: "open", missingCount: 1 });
    expect(rework(allTicks)).toMatchObject({ state: "done", missingCount: 0 });
  });
  it("counts what is missing", () => {
    const measure = lensProgress(sampleJob({ readings: [bad[0] as never] }), sampleRules, now).find(
      (one) => one.lens === "measure",
    );
    expect(measure).toMatchObject({ state: "open", missingCount: 1 });
  });
});

describe("the charge of a job", () => {
  it("draws the conclusion from a live reading without being told", () => {
    const facts = { positions: [], energyStores: [store], chargeEvents: [volts(311, 5), volts(2, 3)], readings: [] };
    expect(jobChargeState(facts, sampleRules.charge, now).name).toBe("verified");
    const live = sampleRailReading("net-12", { value: 12, measuredAt: new Date(now - 60_000).toISOString() });
    expect(jobChargeState({ ...facts, readings: [live] }, sampleRules.charge, now).reason).toBe("live_reading");
  });
});

describe("doneSteps", () => {
  it("let the latest tick of a step decide", () => {
    expect(doneSteps([tick("removed", true, 1), tick("removed", false, 2)], "at-C1").size).toBe(0);
    expect(doneSteps([tick("removed", false, 1), tick("removed", true, 2)], "at-C1").has("removed")).toBe(true);
    expect(doneSteps([tick("removed")], "at-C2").size).toBe(0);
  });
});
