import type { JobDetail } from "@pale-cap/contract";
import { sampleJob, sampleNet, samplePart, sampleRules } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import type { ProbeSettings } from "../job/benchSlice";
import { expectation } from "./expectation";

const settings: ProbeSettings = {
  quantity: "esr",
  circuitState: "out",
  esrFrequencyHertz: 100e3,
  capacitanceFrequencyHertz: 120,
  loadAmps: 0,
  rig: { isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
};
const detail = (more: object = {}) => sampleJob(more) as unknown as JobDetail;
const part = { kind: "part", id: "at-C1" } as const;
const rail = { kind: "rail", id: "net-12" } as const;

describe("expectation", () => {
  it("is core's band at the tester's own frequency", () => {
    const at100k = expectation(detail(), sampleRules, part, "esr", settings);
    const at1k = expectation(detail(), sampleRules, part, "esr", { ...settings, esrFrequencyHertz: 1000 });
    expect(at100k?.high).toBeCloseTo(0.046, 3);
    expect(at1k?.high ?? 0).toBeGreaterThan(at100k?.high ?? 1);
  });
  it("shows the true band of a marking", () => {
    expect(expectation(detail(), sampleRules, part, "capacitance", settings)).toMatchObject({
      low: 0.8e-3,
      high: 1.2e-3,
    });
  });
  it("takes a rail's own limits before the house rule, and turns a negative rail round", () => {
    const nets = [sampleNet({ nominalVolts: -12, toleranceRatio: 0.1, rippleLimitVolts: 0.05 })];
    const volts = expectation(detail({ nets }), sampleRules, rail, "dc_voltage", settings);
    expect([volts?.low, volts?.high].map((value) => Number(value?.toFixed(6)))).toEqual([-13.2, -10.8]);
    expect(expectation(detail({ nets }), sampleRules, rail, "ripple_voltage", settings)?.high).toBe(0.05);
  });
  it("has nothing to compare with where nothing is known", () => {
    const unmarked = detail({ fittedParts: [samplePart("C1", { ratedVolts: null })] });
    expect(expectation(unmarked, sampleRules, part, "esr", settings)).toBeNull();
    expect(expectation(detail(), sampleRules, { kind: "part", id: "gone" }, "esr", settings)).toBeNull();
    expect(
      expectation(detail({ nets: [sampleNet({ nominalVolts: null })] }), sampleRules, rail, "dc_voltage", settings),
    ).toBeNull();
    expect(expectation(detail(), sampleRules, undefined, "esr", settings)).toBeNull();
  });
});
