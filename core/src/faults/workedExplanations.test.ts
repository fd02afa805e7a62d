import { describe, expect, it } from "vitest";
import { sampleRules } from "../../testing/sampleJob";
import { line } from "../../testing/told";
import { workedJobs } from "../../testing/workedJobs";
import { topologies } from "../facts/deviceProfiles";
import { judgeBoard } from "../judgement/judgeBoard";
import { priorsForDevice } from "./devicePriors";
import { explainJob } from "./explainJob";
import { faultEvidence } from "./faultEvidence";
import { faultKnowledge } from "./faultKnowledge";
import { findingsOfPart } from "./findingsOfPart";
import { checksFor, firstSuspects } from "./firstSuspects";
import { symptomCodes } from "./symptoms";

/** What the fault model makes of four jobs, held to the last number. */
describe.each(Object.entries(workedJobs))("%s", (_name, facts) => {
  const judgements = judgeBoard(facts, sampleRules.judgement);
  it("is evidence", () => {
    expect(line([...faultEvidence(facts, judgements, sampleRules)])).toMatchSnapshot();
  });
  it("has findings of each part", () => {
    const section = (netId: string | null) => facts.nets.find((net) => net.id === netId)?.section;
    const lines = facts.positions.map((one) => line([one.designator, findingsOfPart(one, section(one.netId))]));
    expect(lines).toMatchSnapshot();
  });
  it.each(topologies)("is explained in a %s", (topology) => {
    const device = { kind: "monitor", topology, ageYears: 9 } as const;
    const found = explainJob({ ...facts, device }, judgements, sampleRules);
    expect(found?.ranking.explanations.slice(0, 3).map((one) => line(one)) ?? null).toMatchSnapshot();
    expect((found?.checks ?? []).map((one) => line(one))).toMatchSnapshot();
  });
});

describe("where to look first", () => {
  it.each(symptomCodes)("by %s", (symptom) => {
    const suspects = firstSuspects([symptom], "television");
    expect(suspects.map((one) => line(one))).toMatchSnapshot();
    expect(checksFor(suspects).map((one) => line(one))).toMatchSnapshot();
  });
  it("by the device and its age", () => {
    for (const ageYears of [null, 1, 12]) {
      expect(priorsForDevice(faultKnowledge("flyback"), "console", ageYears).map((one) => line(one))).toMatchSnapshot();
    }
  });
});
