import { describe, expect, it } from "vitest";
import { sampleReading } from "../../testing/sampleJob";
import { combineRepeats } from "./combineRepeats";
import { standingReadings, tellingReadings } from "./reading";

describe("readings", () => {
  it("stand in the order of time, without what was corrected", () => {
    const first = sampleReading("C1", { measuredAt: "2026-11-23T10:00:00Z" });
    const second = sampleReading("C1", { measuredAt: "2026-11-23T09:00:00Z" });
    const correction = sampleReading("C1", { supersedesId: first.id, measuredAt: "2026-11-23T11:00:00Z" });
    expect(standingReadings([first, second, correction]).map((one) => one.id)).toEqual([second.id, correction.id]);
  });
  it("of ohms, C and leakage tell of no part while a drain hangs on it; the others do", () => {
    const rig = { isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false, isDrainOn: true };
    const all = (["resistance", "capacitance", "leakage_current", "esr", "diode_drop", "dc_voltage"] as const).map(
      (quantity) => sampleReading("C1", { quantity, rig }),
    );
    expect(tellingReadings(all).map((one) => one.quantity)).toEqual(["esr", "diode_drop", "dc_voltage"]);
    const off = all.map((one) => ({ ...one, rig: { ...rig, isDrainOn: false } }));
    expect(tellingReadings(off)).toHaveLength(6);
  });
  it("combine to a median that one slip does not carry away", () => {
    const combined = combineRepeats([0.041, 0.04, 4.1]);
    expect(combined.value).toBe(0.041);
    expect(combined.count).toBe(3);
    expect(combineRepeats([0.1, 0.3]).value).toBeCloseTo(0.2, 12);
    expect(combineRepeats([0.1]).spreadRatio).toBe(0);
    expect(() => combineRepeats([])).toThrow();
  });
});
