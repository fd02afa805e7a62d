import { describe, expect, it } from "vitest";
import { sampleNet, sampleRailReading } from "../../testing/sampleJob";
import type { Reading } from "../readings/reading";
import { outputShares } from "./outputShare";

const nets = [
  sampleNet({ id: "a", nominalVolts: 12 }),
  sampleNet({ id: "b", nominalVolts: -5 }),
  sampleNet({ id: "bulk", section: "bulk", nominalVolts: 325 }),
];
let sequence = 0;
const read = (netId: string, value: number, loadAmps: number, second: number, more: Partial<Reading> = {}) =>
  sampleRailReading(netId, {
    ...{ value, loadAmps, sequence: ++sequence, clockId: "clock" },
    ...{ measuredAt: new Date(Date.UTC(2026, 10, 23, 11, 0, second)).toISOString(), ...more },
  });
const watts = (value: number, second: number, more: Partial<Reading> = {}) =>
  read("unit", value, 0, second, { targetKind: "unit", quantity: "power", loadAmps: null, ...more });
const shares = (...readings: Reading[]) => outputShares(nets, { readings, ticks: [], acts: [] });

describe("what comes out of what goes in", () => {
  it("is told of rails and watts that were read together, by one clock", () => {
    const [share] = shares(read("a", 12, 2, 0), read("b", -5, 1, 10), read("bulk", 320, 1, 10), watts(36, 60));
    expect(share).toMatchObject({ inputWatts: 36, outputWatts: 29, efficiencyRatio: 29 / 36 });
    expect(shares(read("a", 12, 2, 0), watts(36, 121))[0]?.efficiencyRatio).toBeNull();
    expect(shares(read("a", 12, 2, 0, { clockId: "other" }), watts(36, 1))[0]?.efficiencyRatio).toBeNull();
    // Of two loads the nearer in time, of equally near ones the later.
    expect(shares(read("a", 12, 2, 0), read("a", 12, 1, 20), watts(36, 30))[0]?.outputWatts).toBe(12);
    expect(shares(read("a", 12, 1, 20), watts(36, 30), read("a", 12, 2, 40))[0]?.outputWatts).toBe(24);
  });
  it("is idle where next to nothing comes out, and nothing where it was read through something", () => {
    expect(shares(read("a", 12, 0, 0), watts(1.2, 1))).toMatchObject([{ outputWatts: 0, efficiencyRatio: null }]);
    expect(shares(read("a", 12, 0.1, 0), watts(24, 1))[0]?.efficiencyRatio).toBeCloseTo(0.05, 9);
    const rig = { isSeriesLamp: false, isElectronicLimiter: false, isIsolationTransformer: true };
    expect(shares(read("a", 12, 2, 0), watts(36, 1, { rig }))).toEqual([]);
    expect(shares(watts(0, 1))).toEqual([]);
  });
});
