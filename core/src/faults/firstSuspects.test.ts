import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { deviceKinds } from "../facts/deviceKinds";
import { checksFor, firstChecks, firstSuspects, pointedSymptoms, stages } from "./firstSuspects";
import { symptomCodes } from "./symptoms";

describe("firstSuspects", () => {
  it("knows every symptom of the vocabulary, and every stage can be suspected and checked", () => {
    expect(pointedSymptoms).toEqual(symptomCodes);
    const reached = new Set(
      symptomCodes.flatMap((code) => firstSuspects([code], "television").map((one) => one.stage)),
    );
    expect(reached).toEqual(new Set(stages));
    expect(new Set(firstChecks.flatMap((check) => check.stages))).toEqual(new Set(stages));
  });
  it.each([
    [["hum", "ripple_mains"], "bulk"],
    [["fuse_blown"], "primary-switch"],
    [["voltage_high"], "feedback"],
    [["backlight_drops_out", "worse_over_months"], "output-capacitors"],
    [["cold_start_fails"], "control-supply"],
  ] as const)("looks first for %o at %s", (symptoms, stage) => {
    expect(firstSuspects(symptoms, "other")[0]?.stage).toBe(stage);
  });
  it("leaves out stages that the kind does not have, and gives a reason for every one it names", () => {
    const names = firstSuspects(["fuse_blown", "bang"], "adapter").map((one) => one.stage);
    expect(names).not.toContain("pfc");
    expect(firstSuspects(["fuse_blown"], "television").map((one) => one.stage)).toContain("pfc");
    for (const one of firstSuspects(symptomCodes, "television")) expect(one.because.length).toBeGreaterThan(0);
  });
  it("suspects nothing without symptoms", () => {
    expect(firstSuspects([], "monitor")).toEqual([]);
    expect(checksFor([])).toEqual([]);
  });
  test.prop([fc.subarray([...symptomCodes], { minLength: 1 }), fc.constantFrom(...deviceKinds)])(
    "offers at most three checks, never a live one before a cold one",
    (symptoms, kind) => {
      const checks = checksFor(firstSuspects(symptoms, kind));
      expect(checks.length).toBeLessThanOrEqual(3);
      const live = checks.findIndex((check) => check.isLive);
      if (live >= 0) expect(checks.slice(live).every((check) => check.isLive)).toBe(true);
    },
  );
});
