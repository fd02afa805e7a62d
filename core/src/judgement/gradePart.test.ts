import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { visualSigns } from "../facts/visualSigns";
import { evidenceLikelihood } from "./evidenceLikelihood";
import { gradePart, type PartFindings } from "./gradePart";
import { posteriorMeanProbability } from "./posteriorMean";
import { evidenceFromSigns, evidenceOfSign } from "./signEvidence";
import { voltageLossLikelihood } from "./voltageLossLikelihood";

const clean: PartFindings = {
  school: "twenty",
  capacitanceRatio: 0.97,
  capacitanceUncertaintyRatio: 0.03,
  esrOhms: 0.05,
  esrUncertaintyRatio: 0.1,
  expected: { lowOhms: 0.03, typicalOhms: 0.05, highOhms: 0.08 },
  leakageRatio: null,
  voltageLossRatio: 0.01,
  evidence: {},
};

describe("gradePart", () => {
  it("cannot clear a part without an ESR, however good its capacitance", () => {
    expect(gradePart({ ...clean, esrOhms: null }).grade).toBe("inconclusive");
  });
  it("differs between schools where they disagree: -15 % is worn for the repairer, failed for the strict bench", () => {
    const weak = { ...clean, capacitanceRatio: 0.82, capacitanceUncertaintyRatio: 0.005 };
    expect(gradePart({ ...weak, school: "ten" }).grade).toBe("failed");
    expect(gradePart({ ...weak, school: "twenty" }).grade).toBe("worn");
  });
  it("does not call a part far above its marking sound unless leakage was looked at", () => {
    const odd = gradePart({ ...clean, capacitanceRatio: 1.5, voltageLossRatio: null });
    expect(odd.flags).toEqual(["c_high_unexplained"]);
    expect(odd.grade).not.toBe("sound");
  });
  test.prop([
    fc.option(fc.double({ min: 0, max: 2, noNaN: true }), { nil: null }),
    fc.option(fc.double({ min: 0, max: 10, noNaN: true }), { nil: null }),
    fc.option(fc.double({ min: 0, max: 1, noNaN: true }), { nil: null }),
    fc.dictionary(fc.constantFrom("bulge", "leak", "sleeve", "temp_rise"), fc.option(fc.boolean(), { nil: null })),
  ])("always gives finite probabilities, worn at least as likely as failed", (c, esr, loss, evidence) => {
    const grade = gradePart({ ...clean, capacitanceRatio: c, esrOhms: esr, voltageLossRatio: loss, evidence });
    expect(grade.failedProbability >= 0 && grade.failedProbability <= 1).toBe(true);
    expect(grade.wornProbability).toBeGreaterThanOrEqual(grade.failedProbability);
    expect(Number.isFinite(grade.score)).toBe(true);
  });
  it.each([
    [{ esrUncertaintyRatio: 0 }],
    [{ capacitanceRatio: -0.1 }],
    [{ leakageRatio: 0 }],
    [{ priorFailed: 1 }],
    [{ expected: { lowOhms: 0.05, typicalOhms: 0.03, highOhms: 0.08 } }],
    [{ expected: { lowOhms: 0.03, typicalOhms: 0.09, highOhms: 0.08 } }],
    [{ evidence: { wobbly: true } }],
    [{ school: "lenient" as "ten" }],
  ])("refuses %o", (more) => {
    expect(() => gradePart({ ...clean, ...more })).toThrow(OutOfRangeError);
  });
  it("says which of the expected ohms is wrong", () => {
    const expected = { lowOhms: 0.03, typicalOhms: 0.05, highOhms: Number.NaN };
    expect(() => gradePart({ ...clean, expected })).toThrow("expected.highOhms");
  });
  it("takes lost volts for wear before it takes them for failure", () => {
    const lost = gradePart({ ...clean, capacitanceRatio: 1, voltageLossRatio: 0.12 });
    const worn = (lost.parameterWornProbability ?? 0) - (lost.parameterFailedProbability ?? 0);
    const kept = gradePart({ ...clean, capacitanceRatio: 1, voltageLossRatio: null });
    expect(worn).toBeGreaterThan((kept.parameterWornProbability ?? 0) - (kept.parameterFailedProbability ?? 0) + 0.05);
  });
});

describe("evidence", () => {
  it("damps the second sign of a group", () => {
    const one = evidenceLikelihood({ bulge: true }).logLikelihoodRatio;
    const two = evidenceLikelihood({ bulge: true, leak: true }).logLikelihoodRatio;
    const other = evidenceLikelihood({ leak: true }).logLikelihoodRatio;
    expect(two).toBeGreaterThan(one);
    expect(two).toBeLessThan(one + other);
  });
  it("never clears a part by looks alone", () => {
    const all = Object.fromEntries(visualSigns.map((sign) => [evidenceOfSign[sign] ?? "", false]));
    delete all[""];
    expect(evidenceLikelihood({ ...all, temp_rise: false, suspect_series: false }).logLikelihoodRatio).toBe(-1);
  });
  it("lets any one sign of a name count as seen, and an unlooked one as unknown", () => {
    expect(evidenceFromSigns({ domed: "not_seen", vented: "seen" })).toEqual({ bulge: true });
    expect(evidenceFromSigns({ vented: "seen", domed: "not_seen" })).toEqual({ bulge: true });
    expect(evidenceFromSigns({ leak: "not_looked", cracked_joint: "seen" })).toEqual({});
  });
});

describe("voltage loss and shop counts", () => {
  test.prop([fc.double({ min: 0, max: 0.5, noNaN: true })])("more loss never speaks for a part", (loss) => {
    expect(voltageLossLikelihood(loss + 0.01)).toBeGreaterThanOrEqual(voltageLossLikelihood(loss));
  });
  it("blends a default with what was counted, weighing the default as twenty", () => {
    expect(posteriorMeanProbability(0.3, { events: 12, trials: 30 })).toBeCloseTo(0.36, 12);
    expect(posteriorMeanProbability(0.3, { events: 0, trials: 0 })).toBe(0.3);
    expect(() => posteriorMeanProbability(0.3, { events: 3, trials: 2 })).toThrow(OutOfRangeError);
    expect(() => posteriorMeanProbability(1.2, { events: 0, trials: 2 })).toThrow(OutOfRangeError);
  });
});
