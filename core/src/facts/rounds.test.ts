import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleRailReading,
  sampleReading,
  sampleRules,
} from "../../testing/sampleJob";
import { explainJob } from "../faults/explainJob";
import { judgeBoard } from "../judgement/judgeBoard";
import type { LoggedFact } from "../readings/factMoment";
import type { Reading } from "../readings/reading";
import type { JobAct } from "./jobActs";
import type { JobFacts, ReworkStep, ReworkTick } from "./jobFacts";
import { doneSteps, partBeside, standingPart } from "./reworkTicks";
import { faultFacts, roundNumber, roundView } from "./rounds";

const at = (sequence: number): LoggedFact => ({
  sequence,
  clockId: "clock-1",
  receivedAt: null,
  clockAheadSeconds: 0,
  at: new Date(Date.UTC(2026, 10, 23, 10, sequence)).toISOString(),
});
const tick = (
  sequence: number,
  step: ReworkStep,
  fittedPartId: string | null = null,
  isDone = true,
  of = "C1",
): ReworkTick => ({
  ...at(sequence),
  positionId: `at-${of}`,
  step,
  isDone,
  fittedPartId,
});
const round = (sequence: number, word = "still_faulty"): JobAct => ({
  ...at(sequence),
  kind: "still_faulty",
  subjectId: null,
  word,
  note: null,
});
const read = (sequence: number, of: string, more: Partial<Reading> = {}): Reading => {
  const { at: measuredAt, ...moment } = at(sequence);
  return sampleReading(of, { ...moment, measuredAt, ...more });
};
const old = samplePart("C1", { removedAt: at(10).at });
const fresh = samplePart("C1", { id: "fresh", origin: "replacement" });
/** C1 read bad in circuit beside C2, and replaced. */
const swapped = (more: Partial<JobFacts> = {}) =>
  sampleJob({
    positions: [samplePosition("C1"), samplePosition("C2")],
    fittedParts: [old, fresh, samplePart("C2")],
    ticks: [tick(10, "removed"), tick(11, "fitted", "fresh")],
    ...more,
  });
const verdicts = (job: JobFacts) =>
  Object.fromEntries([...judgeBoard(job, sampleRules.judgement)].map(([id, one]) => [id, one.verdict]));

describe("what stands at a place", () => {
  const parts = [old, fresh];
  const ticks = [tick(10, "removed"), tick(11, "fitted", "fresh")];
  it("is told by its ticks, at any moment, and what came out lies beside the empty place", () => {
    expect(standingPart(parts, ticks, "at-C1", at(10))?.id).toBe("part-C1");
    expect(standingPart(parts, ticks, "at-C1", at(11))).toBeNull();
    expect(standingPart(parts, ticks, "at-C1")?.id).toBe("fresh");
    expect(partBeside(parts, ticks.slice(0, 1), "at-C1")?.id).toBe("part-C1");
    expect(partBeside(parts, ticks, "at-C1")).toBeUndefined();
  });
  it("goes back with what is taken back, over two rounds", () => {
    const again = [...ticks, tick(12, "polarity_part_mark"), tick(20, "removed")];
    expect([...doneSteps(again, "at-C1")]).toEqual(["removed"]);
    expect(partBeside(parts, again, "at-C1")?.id).toBe("fresh");
    const back = [...again, tick(21, "removed", null, false)];
    expect([...doneSteps(back, "at-C1")]).toEqual(["removed", "fitted", "polarity_part_mark"]);
    expect(standingPart(parts, back, "at-C1")?.id).toBe("fresh");
  });
});

describe("a part's verdict", () => {
  const inCircuit = { circuitState: "in_circuit", value: 0.4 } as const;
  it("freezes when its successor goes in: what is read of the bank afterwards is the new part's", () => {
    const before = swapped({ readings: [read(5, "C1", inCircuit)] });
    expect(verdicts(before)["at-C1"]).toBe("failed");
    const good = read(12, "C1", { ...inCircuit, value: 0.02, fittedPartId: "fresh" });
    const bank = read(13, "C1", {
      ...inCircuit,
      value: 0.02,
      targetKind: "bank",
      targetId: "net-12",
      fittedPartId: null,
    });
    expect(verdicts(swapped({ readings: [read(5, "C1", inCircuit), good, bank] }))["at-C1"]).toBe("failed");
  });
  it("still hears the removed part's own readings off the board", () => {
    const out = read(12, "C1", { circuitState: "out", value: 0.03 });
    const lone = { fittedParts: [old, fresh], positions: [samplePosition("C1")] };
    expect(verdicts(swapped({ ...lone, readings: [out] }))["at-C1"]).toBe("sound");
  });
  it("is judged with those that stood beside it when it was read", () => {
    // Read while C1 was out: C2 is alone at the probe, whatever stood there before and after.
    const alone = read(10.5, "C2", inCircuit);
    expect(judgeBoard(swapped({ readings: [alone] }), sampleRules.judgement).get("at-C2")?.bankPositionIds).toEqual([
      "at-C2",
    ]);
    const beside = read(12, "C2", inCircuit);
    expect(judgeBoard(swapped({ readings: [beside] }), sampleRules.judgement).get("at-C2")?.bankPositionIds).toEqual([
      "at-C1",
      "at-C2",
    ]);
  });
});

describe("rounds", () => {
  it("are counted by what was said, and not by what was taken back", () => {
    expect(roundNumber([])).toBe(1);
    expect(roundNumber([round(20)])).toBe(2);
    expect(roundNumber([round(20), round(21, "taken_back")])).toBe(1);
    const job = swapped();
    expect(roundView(job)).toBe(job);
  });
  it("begin with what stands there as found, with plans and ticks of their own", () => {
    const plans = [
      { positionId: "at-C1", cataloguePartId: "x", round: 1 },
      { positionId: "at-C2", cataloguePartId: "y", round: 2 },
    ];
    const view = roundView(swapped({ acts: [round(20)], plans }));
    expect(view.ticks).toEqual([]);
    expect(view.plans.map((plan) => plan.positionId)).toEqual(["at-C2"]);
    expect(view.fittedParts.map((part) => [part.id, part.origin])).toEqual([
      ["fresh", "found"],
      ["part-C2", "found"],
    ]);
  });
  it("keep each their own verdict: the second does not blame what was replaced, the first is as it was", () => {
    const readings = [
      read(5, "C1", { value: 0.6 }),
      read(12, "C1", { value: 0.03, fittedPartId: "fresh" }),
      read(22, "C2", { value: 0.7 }),
    ];
    const job = swapped({ acts: [round(20)], readings });
    expect(verdicts(roundView(job))).toEqual({ "at-C1": "sound", "at-C2": "failed" });
    expect(verdicts(roundView(job, 1))).toEqual({ "at-C1": "failed", "at-C2": "not_measured" });
  });
  it("take over what still holds: volts since the last work, and banks that nobody touched", () => {
    const rail = (sequence: number) => {
      const { at: measuredAt, ...moment } = at(sequence);
      return sampleRailReading("net-12", { ...moment, measuredAt });
    };
    const nets = [sampleNet(), sampleNet({ id: "net-5v", name: "5 V" })];
    const positions = [samplePosition("C1"), samplePosition("C2"), samplePosition("C3", { netId: "net-5v" })];
    const readings = [
      rail(4),
      read(5, "C2", { circuitState: "in_circuit" }),
      read(6, "C3", { circuitState: "in_circuit" }),
      rail(15),
    ];
    const view = roundView(swapped({ nets, positions, acts: [round(20)], readings }));
    expect(view.readings).toEqual([readings[2], readings[3]]);
  });
});

describe("what was wrong", () => {
  it("is told by what was known before the first new part, and by removed parts off the board", () => {
    const readings = [read(5, "C1"), read(12, "C1", { circuitState: "out" }), read(13, "C2")];
    expect(faultFacts(swapped({ readings })).readings).toEqual(readings.slice(0, 2));
  });
  it("is not told anew by what is read of the repaired unit", () => {
    const bad = read(5, "C1", { value: 0.6 });
    const explain = (job: JobFacts) => explainJob(job, judgeBoard(job, sampleRules.judgement), sampleRules);
    const { at: measuredAt, ...moment } = at(15);
    const proof = sampleRailReading("net-12", { ...moment, measuredAt, value: 9, loadAmps: 4 });
    const [before, after] = [swapped({ readings: [bad] }), swapped({ readings: [bad, proof] })].map(explain);
    expect(after?.ranking).toEqual(before?.ranking);
    const early = explain(swapped({ ticks: [], readings: [bad, proof] }));
    expect(early?.ranking).not.toEqual(before?.ranking);
  });
});
