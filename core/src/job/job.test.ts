import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleRailReading,
  sampleReading,
  sampleRules,
  sampleStore,
} from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { PartKind } from "../board/board";
import type { ChargeEvent } from "../facts/chargeFacts";
import { emptyJobFacts, type JobFacts, type Lens, type ReworkStep, type ReworkTick } from "../facts/jobFacts";
import { doneSteps } from "../facts/reworkTicks";
import { jobChargeState, jobChargeStates } from "./jobCharge";
import { type LensState, lensProgress, lensReached } from "./lensProgress";
import { openPoints } from "./openPoints";

const now = Date.parse("2026-11-23T12:00:00Z");
const tick = (step: ReworkStep, isDone = true, minute = 0): ReworkTick => ({
  positionId: "at-C1",
  step,
  isDone,
  ...sampleMoment,
  sequence: minute,
  at: new Date(Date.UTC(2026, 10, 23, 11, minute)).toISOString(),
});
const volts = (value: number, minutesAgo: number, isMeterProved = true): ChargeEvent => ({
  kind: "voltage_measured",
  storeId: "store",
  volts: value,
  isMeterProved,
  isDrainOn: false,
  lineSide: null,
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
});

describe("stored charge as an open point", () => {
  const bulk = sampleNet({ id: "net-bulk", section: "bulk", nominalVolts: 325, fullLoadAmps: null });
  const events = [volts(311, 70), volts(2, 65), volts(2, 63)].map((event, n) => ({ ...event, sequence: n - 10 }));
  const work = (more: Partial<JobFacts>): JobFacts =>
    sampleJob({
      nets: [bulk],
      positions: [samplePosition("C1", { netId: "net-bulk" })],
      fittedParts: [
        samplePart("C1", { removedAt: "2026-11-23T11:00:00Z" }),
        samplePart("C1", { id: "f", origin: "replacement" }),
      ],
      ticks: allTicks,
      energyStores: [sampleStore({ id: "store", positionId: "at-C1" })],
      chargeEvents: events,
      ...more,
    });
  const isOpen = (more: Partial<JobFacts>) => codes(work(more)).includes("charge_not_verified");
  it("asks whether it was verified when work on the mains side was done", () => {
    expect(isOpen({})).toBe(false);
    expect(isOpen({ chargeEvents: events.slice(0, 2) })).toBe(true);
    expect(isOpen({ chargeEvents: [] })).toBe(true);
    expect(isOpen({ energyStores: [], chargeEvents: [] })).toBe(true);
    // What was verified afterwards does not help the hand that was there.
    expect(isOpen({ chargeEvents: events.map((event, n) => ({ ...event, sequence: 10 + n })) })).toBe(true);
  });
  it("asks nothing after the unit ran again, nothing of work on the output side, nothing of an undone tick", () => {
    const live = sampleRailReading("net-bulk", { value: 320, sequence: 20 });
    expect(isOpen({ readings: [live] })).toBe(false);
    expect(isOpen({ nets: [{ ...bulk, section: "output", nominalVolts: 12 }], chargeEvents: [] })).toBe(false);
    expect(isOpen({ ticks: [tick("removed", false)], chargeEvents: [] })).toBe(false);
    expect(isOpen({ ticks: [tick("polarity_board_mark")], chargeEvents: [] })).toBe(false);
  });
  it("takes a part that no net places for the mains side, unless its kind never stands there", () => {
    const at = (kind: PartKind) => ({
      positions: [samplePosition("C1", { kind, netId: null })],
      chargeEvents: [],
      energyStores: [],
    });
    expect([isOpen(at("fuse")), isOpen(at("transistor")), isOpen(at("electrolytic"))]).toEqual([true, true, false]);
  });
  it("keeps its key over recomputation", () => {
    const job = work({ chargeEvents: [] });
    expect(openPoints(job, sampleRules, now)).toEqual(openPoints(job, sampleRules, now + 1000));
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
    const drained = { energyStores: [store], chargeEvents: [volts(311, 5), volts(2, 3), volts(2, 1)] };
    expect(states(sampleJob(drained))["make-safe"]).toBe("done");
    const live = sampleRailReading("net-12", { value: 12, measuredAt: new Date(now - 30_000).toISOString() });
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
    const chargeEvents = [volts(311, 5), volts(2, 3), volts(2, 1)];
    const facts = { ...emptyJobFacts, energyStores: [store], chargeEvents };
    expect(jobChargeState(facts, sampleRules.charge, now).name).toBe("verified");
    const live = sampleRailReading("net-12", { value: 12, measuredAt: new Date(now - 30_000).toISOString() });
    expect(jobChargeState({ ...facts, readings: [live] }, sampleRules.charge, now).reason).toBe("live_reading");
  });
  it("is unknown while the board has a bulk that nobody named, whatever the named ones are", () => {
    const chargeEvents = [volts(2, 3), volts(2, 1)];
    const facts = {
      ...sampleJob({ nets: [sampleNet({ section: "bulk" })], positions: [samplePosition("C2")] }),
      ...{ energyStores: [store], chargeEvents },
    };
    expect(jobChargeStates(facts, sampleRules.charge, now).map((one) => one.name)).toEqual(["verified", "unknown"]);
    expect(jobChargeState(facts, sampleRules.charge, now)).toMatchObject({ reason: "not_named", designators: ["C2"] });
  });
});

describe("doneSteps", () => {
  it("let the latest tick of a step decide", () => {
    expect(doneSteps([tick("removed", true, 1), tick("removed", false, 2)], "at-C1").size).toBe(0);
    expect(doneSteps([tick("removed", false, 1), tick("removed", true, 2)], "at-C1").has("removed")).toBe(true);
    expect(doneSteps([tick("removed")], "at-C2").size).toBe(0);
  });
});
