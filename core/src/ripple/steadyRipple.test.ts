import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import type { FilterCapacitor } from "./filterNetwork";
import {
  flybackContinuousCurrent,
  flybackDiscontinuousCurrent,
  inductorCurrent,
  sourceFromCorners,
  sourceHarmonic,
} from "./sourceCurrent";
import { steadyRipple } from "./steadyRipple";

const part = (capacitanceFarads: number, esrOhms: number, eslHenrys = 0): FilterCapacitor => ({
  capacitanceFarads,
  esrOhms,
  eslHenrys,
});
const alone = (before: readonly FilterCapacitor[]) => ({ before, choke: null, after: [] });
const triangle = inductorCurrent({ switchingHertz: 100e3, loadAmps: 5, swingAmps: 2, dutyRatio: 0.4 });

describe("steadyRipple", () => {
  it("is swing times ESR where the ESR rules, and swing / (8 f C) where the capacitance does", () => {
    expect(steadyRipple(triangle, alone([part(1, 0.05)])).nodeVolts[0]?.peakToPeak).toBeCloseTo(0.1, 6);
    const capacitive = steadyRipple(triangle, alone([part(10e-6, 1e-6)]));
    expect(capacitive.nodeVolts[0]?.peakToPeak).toBeCloseTo(2 / (8 * 100e3 * 10e-6), 4);
  });
  it("carries in one capacitor the source's whole alternating current, by Parseval's theorem", () => {
    const source = flybackDiscontinuousCurrent({
      switchingHertz: 65e3,
      peakAmps: 9.5,
      fallRatio: 0.42,
      riseSeconds: 2e-7,
    });
    let squares = 0;
    for (let order = 1; order <= 4000; order++) {
      const { re, im } = sourceHarmonic(source, order);
      squares += (re * re + im * im) / 2;
    }
    const amps = steadyRipple(source, alone([part(1e-3, 0.03, 15e-9)])).capacitorAmps[0];
    expect(amps?.rms).toBeCloseTo(Math.sqrt(squares), 4);
  });
  test.prop([fc.double({ min: 0.1, max: 10, noNaN: true }), fc.double({ min: 5e-3, max: 1, noNaN: true })])(
    "grows with the current, and two halves in parallel are one whole",
    (factor, esrOhms) => {
      const at = (scale: number, parts: readonly FilterCapacitor[]) =>
        steadyRipple(
          inductorCurrent({ switchingHertz: 1e5, loadAmps: 20 * scale, swingAmps: scale, dutyRatio: 0.3 }),
          alone(parts),
        ).nodeVolts[0]?.peakToPeak ?? 0;
      const whole = [part(470e-6, esrOhms)];
      const halves = [part(235e-6, 2 * esrOhms), part(235e-6, 2 * esrOhms)];
      expect(at(factor, whole) / at(1, whole)).toBeCloseTo(factor, 6);
      expect(at(1, halves) / at(1, whole)).toBeCloseTo(1, 8);
    },
  );
  it("hardly changes with a leakage that takes a minute to empty the part", () => {
    const tight = steadyRipple(triangle, alone([part(470e-6, 0.05)])).nodeVolts[0]?.peakToPeak ?? 0;
    const leaky = steadyRipple(triangle, alone([{ ...part(470e-6, 0.05), leakageOhms: 100e3 }]));
    expect(leaky.nodeVolts[0]?.peakToPeak).toBeCloseTo(tight, 6);
  });
  it("refuses a jump into inductive branches only, a second bank without a choke, and parts that are none", () => {
    const jump = flybackContinuousCurrent({ switchingHertz: 65e3, peakAmps: 8, valleyAmps: 3, dutyRatio: 0.45 });
    expect(() => steadyRipple(jump, alone([part(1e-3, 0.03, 15e-9)]))).toThrow(OutOfRangeError);
    expect(() => steadyRipple(triangle, { ...alone([part(1e-3, 0.03)]), after: [part(1e-4, 0.1)] })).toThrow(
      OutOfRangeError,
    );
    expect(() => steadyRipple(triangle, alone([part(0, 0.03)]))).toThrow(OutOfRangeError);
    expect(() => steadyRipple(triangle, alone([]))).toThrow(OutOfRangeError);
  });
});

describe("sources", () => {
  it("have the mean that the load draws", () => {
    const { meanAmps } = flybackDiscontinuousCurrent({ switchingHertz: 65e3, peakAmps: 9.5238, fallRatio: 0.42 });
    expect(meanAmps).toBeCloseTo(2, 4);
  });
  it("are refused where they cannot be", () => {
    const base = { switchingHertz: 65e3, peakAmps: 9, valleyAmps: 3, dutyRatio: 0.45 };
    expect(() => flybackDiscontinuousCurrent({ ...base, fallRatio: 1.1 })).toThrow(OutOfRangeError);
    expect(() => flybackContinuousCurrent({ ...base, valleyAmps: 10 })).toThrow(OutOfRangeError);
    expect(() => flybackContinuousCurrent({ ...base, dutyRatio: 1 })).toThrow(OutOfRangeError);
    expect(() => flybackContinuousCurrent({ ...base, riseSeconds: 1e-3 })).toThrow(OutOfRangeError);
    expect(() => flybackContinuousCurrent({ ...base, fallSeconds: 1e-3 })).toThrow(OutOfRangeError);
    expect(() => inductorCurrent({ ...base, loadAmps: 1, swingAmps: -1 })).toThrow(OutOfRangeError);
    expect(() => sourceFromCorners([[0, 1]])).toThrow(OutOfRangeError);
    expect(() =>
      sourceFromCorners([
        [0, 1],
        [2, 1],
        [1, 1],
      ]),
    ).toThrow(OutOfRangeError);
  });
});
