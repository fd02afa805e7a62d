import { describe, expect, it } from "vitest";
import { sampleNet } from "../../testing/sampleJob";
import { labelLimits, labelShare, noLabel } from "./labelLimits";

const nets = [
  sampleNet({ id: "3", name: "3.3 V", nominalVolts: 3.3 }),
  sampleNet({ id: "5", name: "Logic", nominalVolts: 5 }),
  sampleNet({ id: "12", name: "12 V A", nominalVolts: 12 }),
  sampleNet({ id: "12b", name: "12 V B", nominalVolts: 12 }),
];
const groups = (...combined: { rails: string; watts: number | null }[]) => labelLimits({ combined }, nets).groups;

describe("what a label counts together", () => {
  it("is found by name, else by volts where one rail alone has them", () => {
    expect(groups({ rails: "+3.3V & 5 V", watts: 120 })).toEqual([{ netIds: ["3", "5"], watts: 120 }]);
    expect(groups({ rails: "12 v a + 12V B", watts: 200 })).toEqual([{ netIds: ["12", "12b"], watts: 200 }]);
    expect(groups({ rails: "logic, 12 V", watts: 200 })).toEqual([]);
    expect(groups({ rails: "3.3 V + 5 V", watts: null }, { rails: "3.3 V + 3.3 V", watts: 9 })).toEqual([]);
    expect(labelLimits({ outputWatts: 300 }, nets)).toEqual({ watts: 300, groups: [] });
  });
  it("limits loads by the tightest of all limits, and nothing below them", () => {
    const drawn = new Map([
      ["3", 33],
      ["5", 100],
      ["12", 120],
    ]);
    expect(labelShare(drawn, noLabel)).toBe(1);
    expect(labelShare(drawn, { watts: 253, groups: [{ netIds: ["3", "5"], watts: 133 }] })).toBe(1);
    expect(labelShare(drawn, { watts: 202.4, groups: [] })).toBeCloseTo(0.8, 9);
    expect(labelShare(drawn, { watts: 202.4, groups: [{ netIds: ["3", "5"], watts: 66.5 }] })).toBeCloseTo(0.5, 9);
    expect(labelShare(drawn, { watts: null, groups: [{ netIds: ["3", "x"], watts: 40 }] })).toBe(1);
  });
});
