import { describe, expect, it } from "vitest";
import { sampleNet, sampleRailReading, sampleRules } from "../../testing/sampleJob";
import type { BoardNet } from "../board/board";
import type { Reading } from "../readings/reading";
import { railProof } from "./railProof";

describe("railProof", () => {
  const proof = (...values: Parameters<typeof sampleRailReading>[1][]) =>
    railProof(
      sampleNet(),
      values.map((more) => sampleRailReading("net-12", more)),
      sampleRules.rail,
    );

  it("relates load regulation to the nominal voltage and droop to the current", () => {
    const result = proof({ value: 12.18 }, { value: 12.02, loadAmps: 8 });
    expect(result.loadRegulationRatio).toBeCloseTo(0.16 / 12, 10);
    expect(result.outputResistanceOhms).toBeCloseTo(0.02, 10);
    expect([result.unloaded, result.loaded, result.ripple]).toEqual(["passed", "passed", "not_measured"]);
  });
  it("does not take an unloaded reading for a loaded one", () => {
    expect(proof({ value: 12.1 })).toMatchObject({ loaded: "not_measured", loadRegulationRatio: null });
  });
  it("turns the limits of a negative rail round", () => {
    const net = sampleNet({ nominalVolts: -12 });
    const result = railProof(net, [sampleRailReading("net-12", { value: -12.3 })], sampleRules.rail);
    expect(result.unloaded).toBe("passed");
    expect(result.lowLimitVolts).toBeCloseTo(-12.6, 10);
  });
  it("has no verdict without a nominal voltage", () => {
    const net = sampleNet({ nominalVolts: null });
    expect(railProof(net, [sampleRailReading("net-12", { value: 5 })], sampleRules.rail).unloaded).toBe("no_limit");
  });
  it("proves nothing from readings through a series lamp or an isolation transformer", () => {
    const lamp = { isSeriesLamp: true, isIsolationTransformer: false, isElectronicLimiter: false };
    const transformer = { isSeriesLamp: false, isIsolationTransformer: true, isElectronicLimiter: false };
    expect(proof({ value: 12.1, rig: lamp }, { value: 11.9, loadAmps: 2, rig: transformer })).toMatchObject({
      unloaded: "not_measured",
      loaded: "not_measured",
    });
    expect(proof({ value: 12.1, rig: lamp }, { value: 12.05 }).unloadedVolts).toBe(12.05);
  });
  it("ignores a voltage that was read with the unit off", () => {
    expect(proof({ value: 0.02, isPowered: false }).unloaded).toBe("not_measured");
  });

  it("takes a rail's own tolerance and its own ripple limit before the house's", () => {
    const of = (net: Partial<BoardNet>) => railProof(sampleNet(net), [], sampleRules.rail);
    expect(of({ toleranceRatio: 0.02 }).lowLimitVolts).toBeCloseTo(11.76, 12);
    expect(of({ toleranceRatio: 0.02 }).highLimitVolts).toBeCloseTo(12.24, 12);
    expect(of({ toleranceRatio: null }).highLimitVolts).toBeCloseTo(12 * (1 + sampleRules.rail.railToleranceRatio), 12);
    expect(of({ rippleLimitVolts: 0.05 }).rippleLimitVolts).toBe(0.05);
    expect(of({ nominalVolts: 0, rippleLimitVolts: null })).toMatchObject({
      ...{ lowLimitVolts: null, highLimitVolts: null, rippleLimitVolts: null, loadRegulationRatio: null },
      ...{ unloaded: "not_measured", loaded: "not_measured", ripple: "not_measured" },
    });
  });
  it("passes at the limits themselves and fails beyond either", () => {
    const at = (value: number) =>
      railProof(sampleNet({ toleranceRatio: 0.25 }), [sampleRailReading("net-12", { value })], sampleRules.rail)
        .unloaded;
    expect([8.99, 9, 15, 15.01].map(at)).toEqual(["failed", "passed", "passed", "failed"]);
    const ripple = (value: number) =>
      railProof(
        sampleNet({ rippleLimitVolts: 0.1 }),
        [sampleRailReading("net-12", { quantity: "ripple_voltage", value, loadAmps: 1 })],
        sampleRules.rail,
      ).ripple;
    expect([0, 0.1, 0.11].map(ripple)).toEqual(["passed", "passed", "failed"]);
  });
  it("counts the latest of each kind, and ripple under load before ripple without", () => {
    expect(proof({ value: 11.8 }, { value: 12.1 }).unloadedVolts).toBe(12.1);
    expect(proof({ value: 11.8, loadAmps: 2 }, { value: 11.7, loadAmps: 3 })).toMatchObject({
      ...{ loadedVolts: 11.7, loadAmps: 3, unloadedVolts: null, outputResistanceOhms: null },
    });
    const ripple = { quantity: "ripple_voltage" } as const;
    expect(proof({ ...ripple, value: 0.02, loadAmps: 3 }, { ...ripple, value: 0.01 }).rippleVolts).toBe(0.02);
    expect(proof({ ...ripple, value: 0.01, loadAmps: 0 }).rippleVolts).toBe(0.01);
  });
  it("falls by what the magnitude loses, on a negative rail too, and rises below nothing", () => {
    const negative = sampleNet({ nominalVolts: -12 });
    const readings = [
      sampleRailReading("net-12", { value: -12.3 }),
      sampleRailReading("net-12", { value: -12, loadAmps: 3 }),
    ];
    const result = railProof(negative, readings, sampleRules.rail);
    expect(result.loadRegulationRatio).toBeCloseTo(0.025, 12);
    expect(result.outputResistanceOhms).toBeCloseTo(0.1, 12);
    expect(proof({ value: 12 }, { value: 12.06, loadAmps: 3 }).loadRegulationRatio).toBeCloseTo(-0.005, 12);
  });
  it("belongs to its own rail, direct and powered, and not to a part or another rail of the same name", () => {
    const others: Partial<Reading>[] = [
      { targetKind: "part" },
      { targetId: "net-5" },
      { isWithdrawn: true },
      { isPowered: false },
      { rig: { isSeriesLamp: false, isElectronicLimiter: true, isIsolationTransformer: false } },
      { quantity: "ac_voltage" },
    ];
    for (const other of others)
      expect(proof({ value: 12.1, ...other }).unloadedVolts, JSON.stringify(other)).toBeNull();
    expect(proof({ value: 12.1 })).toMatchObject({ netId: "net-12", unloadedVolts: 12.1 });
  });
});
