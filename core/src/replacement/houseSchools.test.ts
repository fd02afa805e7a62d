import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import { expectedEsrOfPart, partForSchool } from "../capacitors/expectedEsrOfPart";
import { judgeBoard } from "../judgement/judgeBoard";
import { replacementSet } from "../judgement/replacementSet";
import { replacementRequirement } from "./requirement";

const place = {
  position: samplePosition("C1"),
  part: samplePart("C1"),
  net: sampleNet(),
  voltageSchool: "both",
} as const;
const purpose = { hoursPerDay: 8, standbyHoursPerDay: 16, ambientCelsius: 25, isEnclosed: true };

describe("schools of the house rules", () => {
  it("take an exact capacitance, one not below the marking, or the table of the place", () => {
    const band = (capacitanceSchool: "by_position" | "exact" | "near" | "not_below") => {
      const found = replacementRequirement({ ...place, capacitanceSchool });
      return [found?.capacitanceMinFarads.value, found?.capacitanceMaxFarads.value].map((one) => (one ?? 0) * 1e6);
    };
    expect(band("exact").map(Math.round)).toEqual([950, 1050]);
    expect(band("near").map(Math.round)).toEqual([800, 1250]);
    expect(band("not_below")[0]).toBeCloseTo(999, 6);
    expect(band("by_position").map(Math.round)).toEqual([900, 2000]);
  });

  it("reckon the air and the day from what was promised, and say so", () => {
    const found = replacementRequirement({ ...place, purpose });
    expect(found?.ambientCelsius).toEqual({ value: 60, source: "purpose" });
    expect(found?.mission?.segments.map((one) => one.hours)).toEqual([8, 16]);
    expect(replacementRequirement(place)?.ambientCelsius.source).toBe("assumed");
  });

  it("look at the chart only where the shop wants no more than that", () => {
    const esr = (school: "best_first" | "tan_delta") =>
      expectedEsrOfPart(partForSchool(samplePart("C1"), school), 100e3, 20);
    expect(esr("best_first")?.source).not.toBe(esr("tan_delta")?.source);
    expect(esr("tan_delta")?.typicalOhms).toBeGreaterThan(0);
  });

  it("let a clean look count a little, or not at all", () => {
    const job = sampleJob({
      readings: [sampleReading("C1", { value: 0.1 })],
      signs: [
        { fittedPartId: "part-C1", sign: "domed", state: "not_seen", observedAt: "2026-11-23T10:00:00Z", sequence: 1 },
      ],
    });
    const failed = (cleanLookSchool: "means_nothing" | "counts_a_little") =>
      judgeBoard(job, { ...sampleRules.judgement, cleanLookSchool }).get("at-C1")?.failedProbability ?? 0;
    expect(failed("counts_a_little")).toBeLessThan(failed("means_nothing"));
  });

  it("take out the bad alone, its like on the same rail, or everything", () => {
    const job = sampleJob({
      positions: [samplePosition("C1"), samplePosition("C2"), samplePosition("C3", { netId: "net-5" })],
      fittedParts: [samplePart("C1"), samplePart("C2"), samplePart("C3")],
      readings: [sampleReading("C1", { value: 2.5 })],
    });
    const judgements = judgeBoard(job, sampleRules.judgement);
    const gone = (strategy: "failed_only" | "same_group" | "all_electrolytics" | "whole_supply") =>
      replacementSet(job, judgements, strategy);
    expect(gone("failed_only")).toEqual([]);
    expect(gone("whole_supply")).toEqual([]);
    expect(gone("same_group")).toEqual(["at-C2"]);
    expect(gone("all_electrolytics")).toEqual(["at-C2", "at-C3"]);
    expect(
      replacementSet(
        { ...job, readings: [] },
        judgeBoard({ ...job, readings: [] }, sampleRules.judgement),
        "same_group",
      ),
    ).toEqual([]);
  });
});

describe("a control supply", () => {
  it("gets 105 degrees and low impedance whatever stood there, and an output what its marking says", () => {
    const at = (section: "vcc" | "output" | "feedback", temperatureClassCelsius: number | null) => {
      const need = replacementRequirement({
        ...place,
        net: sampleNet({ section, nominalVolts: null }),
        part: { ...place.part, temperatureClassCelsius },
      });
      const { leastTemperatureClassCelsius: least, isLowEsrOnly } = need ?? {};
      return [least?.value, least?.source, isLowEsrOnly];
    };
    expect(at("vcc", 85)).toEqual([105, "position_table", true]);
    expect(at("vcc", null)).toEqual([105, "position_table", true]);
    expect(at("vcc", 125)).toEqual([125, "marking", true]);
    expect(at("output", 85)).toEqual([85, "marking", true]);
    expect(at("feedback", 85)).toEqual([85, "marking", false]);
  });
});
