import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { notPositive, wronglyTaken } from "../../testing/refusals";
import { judgementConstants } from "../constants/judgementConstants";
import { dischargeResistor } from "./dischargeResistor";

const farads = fc.double({ min: 1e-6, max: 1e-3, noNaN: true });
const highVolts = fc.double({ min: 60, max: 450, noNaN: true });

describe("dischargeResistor", () => {
  test.prop([farads, highVolts, fc.double({ min: 1, max: 60, noNaN: true })])(
    "never proposes a body beyond its voltage or pulse rating, nor one that is too slow",
    (capacitanceFarads, startVolts, longestSeconds) => {
      const chain = dischargeResistor({ capacitanceFarads, startVolts, targetVolts: 10, longestSeconds });
      if (!chain) return;
      const body = judgementConstants.F.parts.find(([name]) => name === chain.bodyName);
      if (!body) throw new Error("proposed a body that is not in the list");
      const [, watts, volts, pulse] = body;
      expect(chain.voltsEach).toBeLessThanOrEqual(0.8 * volts + 1e-6);
      expect(chain.peakPowerEachWatts).toBeLessThanOrEqual(pulse * watts * (1 + 1e-9));
      expect(chain.durationSeconds).toBeLessThanOrEqual(longestSeconds * (1 + 1e-9));
      expect(chain.totalOhms).toBeCloseTo(chain.count * chain.eachOhms, 6);
    },
  );
  it("finds nothing where no chain of four can do it in time", () => {
    const huge = { capacitanceFarads: 0.01, startVolts: 450, targetVolts: 10, longestSeconds: 0.05 };
    expect(dischargeResistor(huge)).toBeNull();
  });
  const monitor = { capacitanceFarads: 100e-6, startVolts: 325, targetVolts: 10, longestSeconds: 5 };
  it("takes the highest value that is quick enough, in the fewest and smallest bodies that stand it", () => {
    // R <= 5 s / (100 uF ln 32.5) = 14.36 kilohms: E12 below it is 12 kilohms, 8.8 W at the first moment.
    const chain = dischargeResistor(monitor);
    expect(chain).toMatchObject({ count: 1, eachOhms: 12e3, totalOhms: 12e3, voltsEach: 325 });
    expect(chain?.durationSeconds).toBeCloseTo(1.2 * Math.log(32.5), 9);
    expect(chain?.peakPowerEachWatts).toBeCloseTo(325 ** 2 / 12e3, 9);
    expect(chain?.energyEachJoules).toBeCloseTo(5.28125, 9);
  });
  it("puts more bodies in series where one alone would not stand it, up to the most that the constants allow", () => {
    // Small bodies only: 1 W that stands 3.5 W for a moment, 350 V.
    const small = { ...judgementConstants.F, parts: [["1 W", 1, 350, 3.5]] as typeof judgementConstants.F.parts };
    const chain = dischargeResistor(monitor, small);
    expect(chain).toMatchObject({ count: 3, bodyName: "1 W", eachOhms: 4700, totalOhms: 14_100 });
    expect(chain?.voltsEach).toBeCloseTo(325 / 3, 9);
    expect(chain?.peakPowerEachWatts).toBeCloseTo(325 ** 2 / 9 / 4700, 9);
    expect(chain?.energyEachJoules).toBeCloseTo(5.28125 / 3, 9);
    expect(dischargeResistor(monitor, { ...small, n_max: 3 })?.count).toBe(3);
    expect(dischargeResistor(monitor, { ...small, n_max: 2 })).toBeNull();
  });
  it("stands exactly at the margin of the voltage and at the pulse rating", () => {
    const body = (watts: number, volts: number) => ({
      ...judgementConstants.F,
      n_max: 1,
      v_margin: 0.5,
      parts: [["one", watts, volts, 2]] as typeof judgementConstants.F.parts,
    });
    const peak = 325 ** 2 / 12e3 / 2;
    expect(dischargeResistor(monitor, body(peak, 650))?.count).toBe(1);
    expect(dischargeResistor(monitor, body(peak, 649))).toBeNull();
    expect(dischargeResistor(monitor, body(peak * 0.999, 650))).toBeNull();
  });
  it("takes a value that is exactly quick enough, and finds none below an ohm", () => {
    const exact = 12e3 * 100e-6 * Math.log(32.5);
    expect(dischargeResistor({ ...monitor, longestSeconds: exact })?.eachOhms).toBe(12e3);
    const wide = { ...judgementConstants.F, parts: [["brick", 1e6, 1e4, 1e3]] as typeof judgementConstants.F.parts };
    const least = 100e-6 * Math.log(32.5);
    expect(dischargeResistor({ ...monitor, longestSeconds: least * 1.01 }, wide)?.eachOhms).toBe(1);
    expect(dischargeResistor({ ...monitor, longestSeconds: least * 0.99 }, wide)).toBeNull();
    expect(dischargeResistor({ ...monitor, longestSeconds: least * 1e7 }, wide)?.eachOhms).toBe(820e3);
  });
  it("refuses a target that is not below the start, and what is no store", () => {
    const bad = { capacitanceFarads: notPositive, startVolts: [...notPositive, 10, 9], longestSeconds: notPositive };
    expect(wronglyTaken(dischargeResistor, monitor, { ...bad, targetVolts: notPositive })).toEqual([]);
    expect(() => dischargeResistor({ ...monitor, startVolts: 10 })).toThrow("above the target voltage");
  });
});
