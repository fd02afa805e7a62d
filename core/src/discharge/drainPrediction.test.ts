import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { predictedDrainVolts } from "./drainPrediction";

const lamp = { name: "60 W", kind: "lamp", count: 1, ohms: null, watts: 60, volts: 230 } as const;
const two = { name: "two 4.7k", kind: "resistor", count: 2, ohms: 4700, watts: 5, volts: 500 } as const;
const store = { capacitanceFarads: 100e-6, startVolts: 325, bleederOhms: null, item: null, resistanceOhms: null };

describe("predictedDrainVolts", () => {
  it("follows the closed form for one resistor, for a chain, and with a bleeder beside", () => {
    expect(predictedDrainVolts({ ...store, resistanceOhms: 10e3 }, 1)).toBeCloseTo(325 * Math.exp(-1), 9);
    expect(predictedDrainVolts({ ...store, item: two }, 0.94)).toBeCloseTo(325 * Math.exp(-1), 9);
    expect(predictedDrainVolts({ ...store, resistanceOhms: 20e3, bleederOhms: 20e3 }, 1)).toBeCloseTo(
      325 * Math.exp(-1),
      9,
    );
  });
  it("says nothing while nothing is known to hang there", () => {
    expect(predictedDrainVolts(store, 1)).toBeNull();
  });
  test.prop([fc.double({ min: 0, max: 3, noNaN: true }), fc.double({ min: 0, max: 3, noNaN: true })])(
    "a lamp only ever lets it fall, from where it started",
    (a, b) => {
      const at = (seconds: number) => predictedDrainVolts({ ...store, item: lamp }, seconds) as number;
      expect(at(0)).toBeCloseTo(325, 0);
      expect(at(Math.max(a, b))).toBeLessThanOrEqual(at(Math.min(a, b)) + 1e-9);
    },
  );
});
