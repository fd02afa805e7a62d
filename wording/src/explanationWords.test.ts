import {
  type CascadeCheck,
  faultKnowledge,
  type Headline,
  overVoltageCheck,
  testFindings,
  topologies,
} from "@pale-cap/core";
import { describe, expect, it } from "vitest";
import { explanationSentences, faultName, faultTest, findingWords } from "./explanationWords";

describe("the words of the fault model", () => {
  it("name every fault, say how each is looked for, and name every finding", () => {
    const codes = new Set(topologies.flatMap((one) => faultKnowledge(one).map((fault) => fault.code)));
    for (const code of [...codes, overVoltageCheck]) {
      expect(faultName(code), code).not.toBe(code);
      expect(faultTest(code), code).not.toBe("");
    }
    for (const finding of Object.keys(testFindings)) expect(findingWords(finding), finding).not.toBe(finding);
  });
  const story = (more: Partial<Headline>, checks: readonly CascadeCheck[] = []) =>
    explanationSentences(
      {
        lead: { code: "boost_bulk_dried", chance: 0.9 },
        ...{ sureness: "plain", beside: [], followed: [], others: [], explanation: null },
        ...more,
      },
      checks,
    );
  const set = { faults: [], first: [], probability: 0.9, explained: [], unexplained: [], contradicted: [] };
  it("tell what began it, what followed, what is explained and what is not", () => {
    const explanation = { ...set, explained: ["dead", "fuse_open"], unexplained: ["fan_found_stuck"] };
    const check = { code: "boost_shunt_open", because: "boost_switch_shorted", finding: null } as const;
    expect(
      story({ followed: ["boost_switch_shorted"], explanation }, [{ ...check, state: "open", isDangerous: false }]),
    ).toBe(
      "The bulk behind the boost stage has dried, and took along: the boost transistor is shorted. That explains dead, nothing lights and fuse reads open. Not explained by it: fan stuck. 1 thing is still to be checked beside it.",
    );
  });
  it("fit the chance, and name what could be instead while nothing is likely", () => {
    expect(story({ sureness: "probably" })).toBe("Probably the bulk behind the boost stage has dried.");
    expect(story({ sureness: "very_likely", beside: ["joint_cracked"] })).toBe(
      "Very likely the bulk behind the boost stage has dried; by itself, a cracked joint.",
    );
    const lead = { code: "boost_switch_shorted", chance: 0.43 };
    expect(story({ lead, sureness: "so_far", others: [{ code: "switch_shorted", chance: 0.31 }] })).toBe(
      "Likeliest so far, and not yet likely: the boost transistor is shorted (43 %), then the switching transistor is shorted (31 %).",
    );
    expect(story({ lead: null, sureness: "probably" })).toContain("Nothing in the supply explains it so far");
  });
  it("say what speaks against it: no part that read well is blamed without a word", () => {
    const explanation = { ...set, contradicted: ["output_capacitor_bad"] };
    expect(story({ lead: { code: "output_capacitors_dried", chance: 0.61 }, sureness: "probably", explanation })).toBe(
      "Likeliest so far, though what was read speaks against it: output capacitors have dried. Looked for and not found: output capacitor bad.",
    );
  });
});
