import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import { judgeBoard } from "./judgeBoard";
import { needsReplacement } from "./needsReplacement";
import { replacementSet } from "./replacementSet";

const positions = [
  ...["C1", "C2", "C3", "C4"].map((name) => samplePosition(name)),
  samplePosition("C5", { netId: "net-5" }),
  samplePosition("C6", { netId: null }),
  samplePosition("F1", { kind: "film" }),
  samplePosition("C7"),
];
const fittedParts = [
  ...["C1", "C2", "C5", "C6", "F1"].map((name) => samplePart(name)),
  samplePart("C3", { ratedVolts: 25 }),
  samplePart("C4", { capacitanceFarads: 470e-6 }),
  samplePart("C7", { origin: "replacement" }),
];
const set = (strategy: Parameters<typeof replacementSet>[2], esrOhms = 0.6) => {
  const facts = sampleJob({ positions, fittedParts, readings: [sampleReading("C1", { value: esrOhms })] });
  return replacementSet(facts, judgeBoard(facts, sampleRules.judgement), strategy);
};

describe("replacementSet", () => {
  it("takes out the bad one alone, its like on the same net, every electrolytic that was found, or none", () => {
    expect(set("failed_only")).toEqual([]);
    // Other volts, another value, another net, a new part: none of them died of the same batch.
    expect(set("same_group")).toEqual(["at-C2"]);
    expect(set("all_electrolytics")).toEqual(["at-C2", "at-C3", "at-C4", "at-C5", "at-C6"]);
    expect(set("whole_supply")).toEqual([]);
  });
  it("takes out nothing where nothing is bad", () => {
    expect(set("all_electrolytics", 0.04)).toEqual([]);
  });
  it("does not join parts of which nobody knows the net", () => {
    const alone = ["C1", "C2"].map((name) => samplePosition(name, { netId: null }));
    const readings = [sampleReading("C1", { value: 0.6 })];
    const facts = sampleJob({ positions: alone, readings });
    expect(replacementSet(facts, judgeBoard(facts, sampleRules.judgement), "same_group")).toEqual([]);
  });
});

it("a failed part and one with an open vent have to go, a worn one has not", () => {
  const facts = sampleJob({ readings: [sampleReading("C1", { value: 0.6 }), sampleReading("C2", { value: 0.04 })] });
  const judgements = judgeBoard(facts, sampleRules.judgement);
  const of = (id: string) => judgements.get(id) as NonNullable<ReturnType<typeof judgements.get>>;
  expect([of("at-C1"), of("at-C2")].map(needsReplacement)).toEqual([true, false]);
  expect(needsReplacement({ ...of("at-C2"), mustReplace: true })).toBe(true);
  expect(needsReplacement({ ...of("at-C2"), verdict: "worn" })).toBe(false);
});

describe("a worn part of what starts the unit", () => {
  const vcc = sampleNet({ id: "vcc", section: "vcc" });
  const worn = new Map([["at-C9", { verdict: "worn", mustReplace: false } as never]]);
  const goes = (symptoms: readonly string[], strategy: Parameters<typeof replacementSet>[2], netId = "vcc") =>
    replacementSet(
      sampleJob({
        ...{ symptoms, nets: [vcc, sampleNet()], readings: [] },
        ...{ positions: [samplePosition("C9", { netId })], fittedParts: [samplePart("C9")] },
      }),
      worn,
      strategy,
    );
  it("goes out of a unit that starts badly whatever the strategy, and stays in any other", () => {
    expect(goes(["repeated_attempts"], "failed_only")).toEqual(["at-C9"]);
    expect(goes(["cold_start_fails"], "same_group")).toEqual(["at-C9"]);
    expect(goes(["hum"], "failed_only")).toEqual([]);
    expect(goes(["repeated_attempts"], "failed_only", "net-12")).toEqual([]);
    expect(goes(["repeated_attempts"], "whole_supply")).toEqual([]);
  });
});
