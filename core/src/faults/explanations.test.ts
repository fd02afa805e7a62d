import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { topologies } from "../facts/deviceProfiles";
import { rankExplanations } from "./explanations";
import { type Fault, faultKnowledge, knowledgeProblems } from "./faultKnowledge";
import { isTestFinding, testFindings } from "./findings";
import { headlineOf } from "./headline";
import { historyCodes, symptomCodes } from "./symptoms";

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
    const files = topologies.flatMap((one) => [faultKnowledge(one), faultKnowledge(one, "television")]);
    const shown = new Set(files.flatMap((one) => one.flatMap((each) => Object.keys(each.shows))));
    for (const file of files) expect(knowledgeProblems(file)).toEqual([]);
    // What happened before is no symptom, and a residual current is a matter of the way to earth.
    expect(symptomCodes.filter((one) => !shown.has(one))).toEqual([
      "tingle",
      "residual_current_tripped",
      ...historyCodes,
    ]);
    // What runs and what was tried in vain speaks against faults; everything else is shown by some.
    const excluded = new Set(files.flatMap((one) => one.flatMap((each) => Object.keys(each.excludes ?? {}))));
    const silent = Object.keys(testFindings).filter((one) => !shown.has(one));
    expect(silent.sort()).toEqual(
      [
        "lead_checked_good",
        "light_tested_good",
        "load_fed_well",
        "output_lead_checked_good",
        "standby_runs",
        "supply_runs",
      ].sort(),
    );
    for (const one of silent) expect(excluded).toContain(one);
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
    // Two faults, one finding: P(a | seen) by hand over the sets {}, {a}, {b}, {a, b}.
    const two = [fault("a"), fault("b", { shows: { bulk_capacitor_bad: 0.5 } })];
    const leak = testFindings.bulk_capacitor_bad;
    const seen = (...chances: number[]) => 1 - chances.reduce((miss, one) => miss * (1 - one), 1 - leak);
    const [onlyA, onlyB, both] = [0.09 * seen(0.95), 0.09 * seen(0.5), 0.01 * seen(0.95, 0.5)];
    const none = 0.81 * seen();
    const all = none + onlyA + onlyB + both;
    const { probabilities, noneProbability } = rankExplanations(two, evidence(["bulk_capacitor_bad"]));
    expect(probabilities.get("a")).toBeCloseTo((onlyA + both) / all, 10);
    expect(noneProbability).toBeCloseTo(none / all, 10);
  });
  it("multiplies what is excluded, and weighs what is only likelier by its factor", () => {
    const two = [fault("a", { excludes: { supply_runs: 0.05 } }), fault("b")];
    const seen = evidence(["bulk_capacitor_bad", "supply_runs"]);
    const { probabilities, explanations } = rankExplanations(two, seen);
    expect(probabilities.get("a")).toBeLessThan(0.15);
    expect(probabilities.get("b")).toBeGreaterThan(0.85);
    // What runs wants no explanation.
    expect(explanations[0]?.unexplained).toEqual([]);
    const odds = (factor: number) => {
      const p =
        rankExplanations([fault("a")], evidence([]), new Map([["bulk_capacitor_bad", factor]])).probabilities.get(
          "a",
        ) ?? 0;
      return p / (1 - p);
    };
    const leak = testFindings.bulk_capacitor_bad;
    const hit = 1 - (1 - leak) * 0.05;
    const ratio = (factor: number) => (factor * hit + 1 - hit) / (factor * leak + 1 - leak);
    for (const factor of [0.1, 1, 10]) expect(odds(factor)).toBeCloseTo((0.1 / 0.9) * ratio(factor), 10);
  });
  it("tells what began it from what is there too", () => {
    const chain = [
      fault("a", { shows: { bulk_capacitor_bad: 0.95 }, causes: { b: 0.9 } }),
      fault("b", { shows: { fuse_open: 0.95 } }),
    ];
    const { probabilities, firstProbabilities } = rankExplanations(
      chain,
      evidence(["bulk_capacitor_bad", "fuse_open"]),
    );
    expect(probabilities.get("b")).toBeGreaterThan(0.9);
    expect(firstProbabilities.get("b")).toBeLessThan(0.1);
    expect(firstProbabilities.get("a")).toBeCloseTo(probabilities.get("a") ?? 0, 10);
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
      [fault("a", { shows: { bulk_capacitor_bad: 0.75, dead: 0.9, hum: 0.9 } })],
      evidence(["dead", "hum"], ["bulk_capacitor_bad"]),
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
    expect(chances.at(-1)).toBeGreaterThan(0.85);
    expect(steps.filter(isTestFinding)).toEqual(["ripple_mains_measured", "bulk_capacitor_bad"]);
    expect(() => rankExplanations([], evidence(["hum"]))).toThrow(OutOfRangeError);
  });
});

describe("the headline", () => {
  const chain = [
    fault("a", { shows: { bulk_capacitor_bad: 0.95 }, causes: { b: 0.9 } }),
    fault("b", { shows: { fuse_open: 0.95 } }),
  ];
  it("leads with what began it, plainly only where a test shows it", () => {
    const told = headlineOf(rankExplanations(chain, evidence(["bulk_capacitor_bad", "fuse_open"])));
    expect([told?.lead?.code, told?.followed, told?.beside]).toEqual(["a", ["b"], []]);
    const guessed = rankExplanations([fault("a", { prior: 0.9, shows: { dead: 0.95 } })], evidence(["dead"]));
    expect(headlineOf(guessed)?.sureness).toBe("very_likely");
    const shown = rankExplanations([fault("a", { prior: 0.9 })], evidence(["bulk_capacitor_bad"]));
    expect(headlineOf(shown)?.sureness).toBe("plain");
  });
  it("is not led by a part that what was seen leaves unlikely, and may be nothing at all", () => {
    const even = rankExplanations([fault("a"), fault("c"), fault("d")], evidence(["bulk_capacitor_bad"]));
    expect(headlineOf(even)?.sureness).toBe("so_far");
    expect(headlineOf(even)?.others).toHaveLength(2);
    const none = rankExplanations([fault("a")], evidence([], ["bulk_capacitor_bad"]));
    expect(headlineOf(none)?.lead).toBeNull();
  });
});
