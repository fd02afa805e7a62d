import { describe, expect, it } from "vitest";
import { sampleJob, sampleRailReading, sampleReading, sampleRules } from "../../testing/sampleJob";
import type { JobFacts } from "../facts/jobFacts";
import { closingList } from "../facts/teardown";
import { judgeBoard } from "../judgement/judgeBoard";
import { type FamilyUnit, familyFindings } from "./familyFindings";

/** C1 and C2 on 12 V; the same ids stand for the same places. */
function unit(number: number, more: Partial<JobFacts> = {}): FamilyUnit {
  const facts = sampleJob(more);
  const judgements = judgeBoard(facts, sampleRules.judgement);
  return { jobId: `job-${number}`, number, facts, judgements, lineageOf: (id) => id };
}
const dried = (designator: string) => sampleReading(designator, { value: 2.5 });
const sound = (designator: string) => [
  sampleReading(designator, { value: 0.03 }),
  sampleReading(designator, { quantity: "capacitance", value: 1e-3, frequencyHertz: 120 }),
];
const findings = (own: FamilyUnit, ...others: FamilyUnit[]) =>
  familyFindings(own, others, sampleRules).map((one) => [one.code, one.subject, one.unitNumbers, one.own]);

describe("familyFindings", () => {
  it("makes one line of units that agree, and asks for it here", () => {
    const first = unit(143, { readings: [dried("C2")] });
    const second = unit(144, { readings: [dried("C2")] });
    expect(findings(unit(145), second, first)).toEqual([["part_bad", "C2", [143, 144], "not_checked"]]);
  });
  it("knows what this unit already says", () => {
    const first = unit(143, { readings: [dried("C1"), dried("C2")] });
    const own = unit(145, { readings: [...sound("C1"), dried("C2")] });
    expect(findings(own, first)).toEqual([
      ["part_bad", "C2", [143], "the_same_here"],
      ["part_bad", "C1", [143], "not_here"],
    ]);
    expect(findings(unit(146, { positions: [], fittedParts: [] }), first).map((one) => one[3])).toEqual([
      "not_on_board",
      "not_on_board",
    ]);
  });
  it("tells of rails and fuses too, and of nothing that was sound", () => {
    const low = unit(143, { readings: [sampleRailReading("net-12", { value: 9 })], symptoms: ["fuse_blown"] });
    expect(findings(unit(145), low)).toEqual(
      [
        ["rail_bad", "12 V", [143], "not_checked"],
        ["fuse_blown", "fuse", [143], "not_checked"],
      ].sort((a, b) => String(a[1]).localeCompare(String(b[1]))),
    );
    expect(findings(unit(145), unit(144, { readings: sound("C1") }))).toEqual([]);
  });
});

describe("closingList", () => {
  const steps = [
    { id: "a", number: 1, kind: "screws", count: 4 },
    { id: "b", number: 2, kind: "earth_screws", count: 1 },
  ] as const;
  it("runs backwards and counts in against out, the latest word standing", () => {
    const returns = [
      { stepId: "a", countIn: 4, at: "2026-11-23T12:00:00Z", sequence: 1 },
      { stepId: "a", countIn: 3, at: "2026-11-23T11:55:00Z", sequence: 2 },
    ];
    expect(
      closingList(steps, returns).map((line) => [line.step.id, line.countIn, line.missingCount, line.isBegun]),
    ).toEqual([
      ["b", 0, 1, false],
      ["a", 3, 1, true],
    ]);
    expect(closingList(steps, [...returns].reverse())[1]?.missingCount).toBe(1);
  });
});
