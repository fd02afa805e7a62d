import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { topologies } from "../facts/deviceProfiles";
import { rankExplanations } from "./explanations";
import { type Fault, faultKnowledge, knowledgeProblems } from "./faultKnowledge";
import { isTestFinding, testFindings } from "./findings";
import { symptomCodes } from "./symptoms";

const evidence = (seen: readonly string[], notSeen: readonly string[] = []) =>
  new Map([...seen.map((one) => [one, true] as const), ...notSeen.map((one) => [one, false] as const)]);
const fault = (code: string, more: Partial<Fault> = {}): Fault => ({
  code,
  stage: "bulk",
  prior: 0.1,
  shows: { bulk_capacitor_bad: 0.95 },
  causes: {},
  ...more,
});

describe("the fault knowledge", () => {
  it("holds together for every topology, and every symptom and test points somewhere", () => {
    const shown = new Set(topologies.flatMap((one) => faultKnowledge(one).flatMap((each) => Object.keys(each.shows))));
    for (const topology of topologies) expect(knowledgeProblems(faultKnowledge(topology))).toEqual([]);
    // One symptom is about other units; a breaker speaks as a blown fuse does, a residual current of the way to earth.
    expect(symptomCodes.filter((one) => !shown.has(one))).toEqual([
      "breaker_tripped",
      "residual_current_tripped",
      "same_in_others",
    ]);
    expect(Object.keys(testFindings).filter((one) => !shown.has(one))).toEqual([]);
  });
  it("is refused where it does not", () => {
    const wrong = (more: Partial<Fault>) => knowledgeProblems([fault("a", more)]).join();
    expect(wrong({ prior: 1 })).toContain("prior");
    expect(wrong({ shows: { nonsense: 0.9 } })).toContain("no finding");
    expect(wrong({ shows: { bulk_capacitor_bad: 1.2 } })).toContain("1.2");
    expect(wrong({ shows: { dead: 0.95 } })).toContain("confirmed by no test");
    expect(wrong({ causes: { a: 0.5 } })).toContain("itself");
    expect(knowledgeProblems([fault("a"), fault("a")]).join()).toContain("twice");
    const circle = [fault("a", { causes: { b: 0.5 } }), fault("b", { causes: { a: 0.5 } })];
    expect(knowledgeProblems(circle)).toContain("cascades run in a circle");
  });
});

describe("rankExplanations", () => {
  it("weighs one fault by Bayes' rule", () => {
    // Two faults, one finding: P(a | seen) by hand over the sets {a}, {b}, {a, b}.
    const two = [fault("a"), fault("b", { shows: { bulk_capacitor_bad: 0.5 } })];
    const leak = testFindings.bulk_capacitor_bad;
    const seen = (...chances: number[]) => 1 - chances.reduce((miss, one) => miss * (1 - one), 1 - leak);
    const [onlyA, onlyB, both] = [0.09 * seen(0.95), 0.09 * seen(0.5), 0.01 * seen(0.95, 0.5)];
    const { probabilities } = rankExplanations(two, evidence(["bulk_capacitor_bad"]));
    expect(probabilities.get("a")).toBeCloseTo((onlyA + both) / (onlyA + onlyB + both), 10);
  });
  it("explains a chain as one set and says what began it", () => {
    const found = evidence([
      "dead",
      "bang",
      "boost_capacitor_bad",
      "boost_switch_reads_shorted",
      "shunt_reads_open",
      "fuse_open",
    ]);
    const [best] = rankExplanations(faultKnowledge("pfc_forward_with_standby"), found).explanations;
    expect(best?.faults).toEqual(
      expect.arrayContaining(["boost_bulk_dried", "boost_switch_shorted", "boost_shunt_open", "fuse_open_alone"]),
    );
    expect(best?.first).toEqual(["boost_bulk_dried"]);
    expect(best?.unexplained).toEqual([]);
  });
  it("knows the transistor that spared the fuse because the shunt went first", () => {
    const found = evidence(
      ["dead", "output_capacitor_bad", "switch_reads_shorted", "shunt_reads_open", "control_ic_reads_shorted"],
      ["fuse_open"],
    );
    const { explanations, probabilities } = rankExplanations(faultKnowledge("flyback"), found);
    expect(explanations[0]?.faults).toEqual(
      expect.arrayContaining(["switch_shorted", "shunt_open", "control_ic_faulty"]),
    );
    expect(explanations[0]?.first).toContain("output_capacitors_dried");
    expect(probabilities.get("fuse_open_alone")).toBeLessThan(0.05);
  });
  it("says what stays unexplained, and what speaks against", () => {
    const odd = rankExplanations([fault("a")], evidence(["bulk_capacitor_bad", "fan_found_stuck"]));
    expect(odd.explanations[0]?.unexplained).toEqual(["fan_found_stuck"]);
    const against = rankExplanations(
      [fault("a", { shows: { bulk_capacitor_bad: 0.95, dead: 0.9 } })],
      evidence(["dead"], ["bulk_capacitor_bad"]),
    );
    expect(against.explanations[0]?.contradicted).toEqual(["bulk_capacitor_bad"]);
  });
  it("grows surer of the bulk with each finding that it shows", () => {
    const knowledge = faultKnowledge("flyback");
    const steps = ["hum", "ripple_mains", "ripple_mains_measured", "bulk_capacitor_bad"];
    const chances = steps.map(
      (_, n) => rankExplanations(knowledge, evidence(steps.slice(0, n + 1))).probabilities.get("bulk_dried") ?? 0,
    );
    expect(chances).toEqual([...chances].sort((a, b) => a - b));
    expect(chances.at(-1)).toBeGreaterThan(0.98);
    expect(steps.filter(isTestFinding)).toEqual(["ripple_mains_measured", "bulk_capacitor_bad"]);
    expect(() => rankExplanations([], evidence(["hum"]))).toThrow(OutOfRangeError);
  });
});
