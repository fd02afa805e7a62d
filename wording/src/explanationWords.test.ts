import { faultKnowledge, overVoltageCheck, testFindings, topologies } from "@pale-cap/core";
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
  it("tell what began it, what followed, what is explained and what is not", () => {
    const story = explanationSentences(
      {
        faults: ["boost_bulk_dried", "boost_switch_shorted"],
        first: ["boost_bulk_dried"],
        probability: 0.9,
        explained: ["dead", "fuse_open"],
        unexplained: ["fan_found_stuck"],
        contradicted: [],
      },
      [{ code: "boost_shunt_open", because: "boost_switch_shorted", finding: null, state: "open", isDangerous: false }],
    );
    expect(story).toBe(
      "The bulk behind the boost stage has dried, and took along: the boost transistor is shorted. That explains dead, nothing lights and fuse reads open. Not explained by it: fan stuck. 1 thing is still to be checked beside it.",
    );
  });
  it("say what speaks against it: no part that read well is blamed without a word", () => {
    const dried = {
      ...{ faults: ["output_capacitors_dried"], first: ["output_capacitors_dried"], explained: [], unexplained: [] },
      contradicted: ["output_capacitor_bad" as const],
    };
    expect(explanationSentences({ ...dried, probability: 0.61 }, [])).toBe(
      "Likeliest so far, though what was read speaks against it: output capacitors have dried. Looked for and not found: output capacitor bad.",
    );
    expect(explanationSentences({ ...dried, probability: 0.4 }, [])).toMatch(
      /^Likeliest so far, and not yet likely: .* not found/,
    );
  });
});
