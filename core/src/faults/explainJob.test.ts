import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import { topologies } from "../facts/deviceProfiles";
import type { JobFacts } from "../facts/jobFacts";
import { JobJudge } from "../job/jobJudge";
import { openPoints } from "../job/openPoints";
import { judgeBoard } from "../judgement/judgeBoard";
import { priorProblems, priorsForDevice } from "./devicePriors";
import { explainJob } from "./explainJob";
import { rankExplanations } from "./explanations";
import { faultKnowledge } from "./faultKnowledge";
import { findingGains } from "./findingGains";

const rules = sampleRules;
const explain = (facts: JobFacts) => explainJob(facts, judgeBoard(facts, rules.judgement), rules);

describe("priors", () => {
  it("name only faults and stages that there are", () => {
    const codes = new Set(topologies.flatMap((one) => faultKnowledge(one, "monitor").map((fault) => fault.code)));
    expect(priorProblems(codes)).toEqual([]);
    expect(priorProblems(new Set())).not.toEqual([]);
  });
  it("grow with age where a fault comes of wear, and move nothing where nobody knows", () => {
    const prior = (years: number | null, code: string) =>
      priorsForDevice(faultKnowledge("flyback"), null, years).find((one) => one.code === code)?.prior;
    expect(prior(10, "output_capacitors_dried")).toBeGreaterThan(prior(1, "output_capacitors_dried") ?? 1);
    expect(prior(10, "switch_shorted")).toBeCloseTo(prior(1, "switch_shorted") ?? 0, 12);
    expect(priorsForDevice(faultKnowledge("flyback"), null, null)[0]?.prior).toBeCloseTo(
      faultKnowledge("flyback")[0]?.prior ?? 0,
      12,
    );
  });
});

describe("what happened before", () => {
  const chance = (told: readonly string[], code: string) =>
    priorsForDevice(faultKnowledge("flyback"), "adapter", 5, told).find((one) => one.code === code)?.prior ?? 0;
  it("moves the stages and faults it speaks of, by its factor on the odds, and nothing else", () => {
    const odds = (prior: number) => prior / (1 - prior);
    expect(odds(chance(["after_storm"], "varistor_shorted")) / odds(chance([], "varistor_shorted"))).toBeCloseTo(6, 9);
    expect(odds(chance(["after_storm"], "bridge_shorted")) / odds(chance([], "bridge_shorted"))).toBeCloseTo(2.5, 9);
    expect(odds(chance(["after_drop"], "joint_cracked")) / odds(chance([], "joint_cracked"))).toBeCloseTo(5, 9);
    expect(chance(["after_storm"], "joint_cracked")).toBeGreaterThan(chance([], "joint_cracked"));
    expect(chance(["after_storm"], "load_faulty")).toBe(chance([], "load_faulty"));
    expect(chance(["dead"], "bridge_shorted")).toBe(chance([], "bridge_shorted"));
  });
  it("is nothing that has to be explained", () => {
    const told = explain(sampleJob({ symptoms: ["ticking", "after_storm", "after_liquid"], readings: [] }));
    expect(told?.ranking.explanations[0]?.unexplained ?? []).not.toContain("after_storm");
    expect(explain(sampleJob({ symptoms: ["after_storm"], readings: [] }))).toBeNull();
  });
});

describe("ranking", () => {
  it("gives a fault that stands apart from all that was seen its own chance, less what was looked for in vain", () => {
    const knowledge = faultKnowledge("flyback");
    const { probabilities } = rankExplanations(
      knowledge,
      new Map([
        ["ripple_switching", true],
        ["bridge_reads_open", false],
      ]),
    );
    const fault = knowledge.find((one) => one.code === "bridge_diode_open");
    const odds = ((fault?.prior ?? 0) / (1 - (fault?.prior ?? 0))) * (1 - (fault?.shows.bridge_reads_open ?? 0));
    expect(probabilities.get("bridge_diode_open")).toBeCloseTo(odds / (1 + odds), 12);
    expect(probabilities.size).toBe(knowledge.length);
  });
  it("says which test would tell most: the one on which the explanations part", () => {
    const knowledge = faultKnowledge("flyback");
    const evidence = new Map([["dead", true]]);
    const gains = findingGains(knowledge, evidence, rankExplanations(knowledge, evidence));
    expect(gains.get("bulk_never_charged")).toBeGreaterThan(gains.get("fan_found_stuck") ?? 0);
    for (const bits of gains.values()) expect(bits).toBeLessThanOrEqual(1 + 1e-9);
  });
});

describe("a chain through transistor, shunt and chip with the fuse intact", () => {
  const at = (designator: string, kind: "fuse" | "transistor" | "resistor" | "ic") =>
    samplePosition(designator, { kind, netId: null, markedOhms: kind === "resistor" ? 0.33 : null });
  const read = (designator: string, terminals: string, value: number | null) =>
    sampleReading(designator, {
      fittedPartId: null,
      quantity: "resistance",
      terminals,
      value,
      coarseCode: value === null ? "over_range" : null,
      circuitState: "in_circuit",
      frequencyHertz: null,
    });
  const facts = sampleJob({
    symptoms: ["dead", "bang"],
    positions: [at("F1", "fuse"), at("Q1", "transistor"), at("R10", "resistor"), at("U1", "ic")],
    fittedParts: [],
    readings: [read("F1", "1,2", 0.3), read("Q1", "D,S", 0.2), read("R10", "1,2", null), read("U1", "VCC,GND", 3)],
  });
  it("is explained by one set in which shunt and chip followed, and the whole fuse clears nothing", () => {
    const best = explain(facts)?.ranking.explanations[0];
    expect(best?.faults).toEqual(expect.arrayContaining(["switch_shorted", "shunt_open", "control_ic_faulty"]));
    for (const followed of ["shunt_open", "control_ic_faulty"]) expect(best?.first).not.toContain(followed);
  });
  it("leaves what was not checked of its cascade, and every bad part, as open points", () => {
    const points = openPoints(facts, rules, 0).map((one) => `${one.code} ${one.subject}`);
    expect(points).toEqual(expect.arrayContaining(["device_bad Q1", "device_bad R10", "check_open small_parts_gone"]));
  });
});

it("leaves what no fault explains as an open point", () => {
  const facts = sampleJob({
    device: { kind: "other", topology: "buck_board", ageYears: null },
    symptoms: ["ripple_switching", "breaker_tripped"],
    readings: [sampleReading("C1", { value: 2 })],
  });
  expect(openPoints(facts, rules, 0).map((one) => one.key)).toContain("finding_unexplained:breaker_tripped");
});

describe("JobJudge", () => {
  it("says after every change what judging everything anew says", () => {
    const nets = [sampleNet(), sampleNet({ id: "net-5", nominalVolts: 5 })];
    const positions = ["C1", "C2"].map((one) => samplePosition(one)).concat(samplePosition("C3", { netId: "net-5" }));
    const fittedParts = ["C1", "C2", "C3"].map((one) => samplePart(one));
    const facts = sampleJob({ nets, positions, fittedParts });
    const judge = new JobJudge(facts, rules);
    judge.judge();
    const first = sampleReading("C1", { value: 0.5 });
    const other = sampleReading("C3");
    judge.take({ facts: {}, rules: null, addedReadings: [first, other], removedReadingIds: [] });
    judge.judge();
    const last = sampleReading("C3", { value: 3 });
    const symptoms = ["collapses_under_load"];
    judge.take({ facts: { symptoms }, rules: null, addedReadings: [last], removedReadingIds: [first.id, other.id] });
    const { judgements, explanation } = judge.judge();
    expect(judgements.get("at-C1")?.verdict).toBe("not_measured");
    expect(judgements.get("at-C3")?.verdict).toBe("failed");
    expect(explanation?.ranking.explanations[0]?.faults).toContain("output_capacitors_dried");
  });
});
