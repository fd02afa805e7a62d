import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import type { JobFacts } from "../facts/jobFacts";
import { explainJob } from "../faults/explainJob";
import { judgeBoard } from "../judgement/judgeBoard";
import { nextTargets } from "./nextTargets";

const proposed = (facts: JobFacts, withGains: boolean) => {
  const judgements = judgeBoard(facts, sampleRules.judgement);
  const gains = withGains ? explainJob(facts, judgements, sampleRules)?.gains : undefined;
  const question = { facts, judgements, deviceKind: "monitor" as const, strategy: "failed_only" as const };
  return nextTargets({ ...question, isChargeVerified: true, ...(gains && { gains }) });
};
const device = (designator: string, kind: "fuse" | "transistor" | "fan") =>
  samplePosition(designator, { kind, netId: null });

describe("what to read next", () => {
  const dead = sampleJob({
    symptoms: ["dead", "fuse_blown", "bang"],
    positions: [device("F1", "fuse"), device("Q1", "transistor"), device("M1", "fan"), samplePosition("C1")],
    fittedParts: [samplePart("C1")],
  });
  it("weighs what a test tells about which explanation holds", () => {
    const gains = new Map(proposed(dead, true).map((one) => [one.positionId, one.gainBits]));
    // A blown fuse is told already: what is behind it parts the explanations, and a fan does not.
    expect(gains.get("at-Q1")).toBeGreaterThan(0.1);
    expect(gains.has("at-M1")).toBe(false);
  });
  it("never proposes a test under power", () => {
    const chip = { ...dead, positions: [samplePosition("U1", { kind: "ic", netId: null })], fittedParts: [] };
    for (const one of proposed(chip, true)) expect(one.terminals).not.toContain("least");
  });
  it("looks for a leak on a bank whose parts are judged already, and then part by part with a lead up", () => {
    const nets = [sampleNet()];
    const sound = ["C1", "C2"].flatMap((at) => [
      sampleReading(at, { value: 0.03 }),
      sampleReading(at, { quantity: "capacitance", value: 990e-6, frequencyHertz: 120 }),
    ]);
    const facts = sampleJob({ nets, readings: sound });
    expect(proposed(facts, false)).toMatchObject([{ quantity: "resistance", circuitState: "in_circuit" }]);
    const ohms = sampleReading("C1", { quantity: "resistance", value: 12, circuitState: "in_circuit" });
    const after = proposed({ ...facts, readings: [...sound, ohms] }, false);
    expect(after.map((one) => `${one.positionId} ${one.quantity}`).sort()).toEqual([
      "at-C1 resistance",
      "at-C2 resistance",
    ]);
  });
});
