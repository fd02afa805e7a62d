import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { seededRandom } from "../numerics/seededRandom";
import { analyseCapture } from "./analyseCapture";
import { decimate } from "./decimate";
import { fitHarmonics } from "./harmonicFit";
import { rippleAttribution } from "./rippleAttribution";

const interval = 4e-7;
const wave = (count: number, at: (seconds: number, n: number) => number, step = interval) =>
  Float32Array.from({ length: count }, (_, n) => at(n * step, n));
const saw = (seconds: number, hertz: number, volts: number) => volts * (0.5 - ((seconds * hertz) % 1));
const rectified = (seconds: number, volts: number, hertz = 100) => {
  const phase = (seconds * hertz) % 1;
  return volts * (phase < 0.2 ? phase / 0.2 - 0.5 : 0.5 - (phase - 0.2) / 0.8);
};

describe("analyseCapture", () => {
  it("takes apart switching, twice the mains, noise and spikes, in a window of no whole periods", () => {
    const random = seededRandom(3);
    const samples = wave(187_000, (t) => {
      const spike = (t * 65_300) % 1 < 0.004 && t % 0.01 < 0.0004 ? 0.3 : 0;
      return 12 + saw(t, 65_300, 0.1) + rectified(t, 0.3) + 0.003 * (random() - 0.5) + spike;
    });
    const found = analyseCapture(samples, interval, 50);
    expect(found.meanVolts).toBeCloseTo(12, 2);
    expect(found.switching?.frequencyHertz).toBeCloseTo(65_300, -1);
    expect(found.switching?.peakToPeak).toBeCloseTo(0.1, 2);
    expect(found.doubleMains?.peakToPeak).toBeGreaterThan(0.27);
    expect(found.doubleMains?.peakToPeak).toBeLessThan(0.31);
    expect(found.mains?.peakToPeak).toBeLessThan(0.002);
    expect(found.spikePeakToPeakVolts).toBeGreaterThan(0.05);
    expect(found.pulsing).toBeNull();
    expect(found.quietPeakToPeakVolts).toBeLessThan(0.42);
  });
  it("sees the mains frequency itself where one half is missing", () => {
    const found = analyseCapture(
      wave(150_000, (t) => rectified(t, 0.4, 50)),
      interval,
      50,
    );
    expect(found.mains?.peakToPeak).toBeGreaterThan(0.2);
    expect(rippleAttribution(found, null).causes.map((one) => one.cause)).toContain("asymmetry");
  });
  it("finds bursts by how the ripple comes and goes, and no steady ripple for one", () => {
    const burst = wave(60_000, (t) => ((t * 700) % 1 < 0.4 ? saw(t, 60_000, 0.2) : 0));
    const found = analyseCapture(burst, interval, 50);
    expect(found.pulsing?.frequencyHertz).toBeCloseTo(700, -1.5);
    expect(found.pulsing?.depthRatio).toBeGreaterThan(0.8);
    expect(
      analyseCapture(
        wave(2400, (t) => saw(t, 65_000, 1)),
        2.56e-7,
        50,
      ).pulsing,
    ).toBeNull();
  });
  it("tells periods that differ by turns from a lower switching frequency", () => {
    const byTurns = (small: number) =>
      wave(20_000, (t) => saw(t, 70_000, 0.2) * (Math.floor(t * 70_000) % 2 === 0 ? 1 : small), 1e-7);
    const found = analyseCapture(byTurns(0.5), 1e-7, 50);
    expect(found.switching?.frequencyHertz).toBeCloseTo(70_000, -2);
    expect(found.pulsing?.frequencyHertz).toBeCloseTo(35_000, -2);
    expect(rippleAttribution(found, null).causes.map((one) => one.cause)).toContain("control_or_light_load");
    expect(analyseCapture(byTurns(1), 1e-7, 50).pulsing).toBeNull();
  });
  it("measures drift, and a limit of bandwidth only where the sampling allows it", () => {
    expect(
      analyseCapture(
        wave(5000, (t) => 3 * t),
        interval,
        50,
      ).driftVoltsPerSecond,
    ).toBeCloseTo(3, 3);
    expect(
      analyseCapture(
        wave(5000, (t) => saw(t, 65e3, 1)),
        interval,
        50,
      ).limitedPeakToPeakVolts,
    ).toBeNull();
    const fast = wave(20_000, (_, n) => (n % 4000 === 0 ? 1 : 0), 2e-9);
    expect(analyseCapture(fast, 2e-9, 50).limitedPeakToPeakVolts).toBeLessThan(0.5);
  });
  it("refuses what is no capture", () => {
    expect(() => analyseCapture(new Float32Array(8), interval, 50)).toThrow(OutOfRangeError);
    expect(() => analyseCapture(new Float32Array(64), 0, 50)).toThrow(OutOfRangeError);
    expect(() =>
      analyseCapture(
        Float32Array.from({ length: 64 }, () => Number.NaN),
        interval,
        50,
      ),
    ).toThrow("finite");
  });
});

describe("rippleAttribution", () => {
  const found = analyseCapture(
    wave(187_000, (t) => saw(t, 65_300, 0.1) + rectified(t, 0.3)),
    interval,
    50,
  );
  it("puts the larger part first and names its stage", () => {
    const { causes } = rippleAttribution(found, null);
    expect(causes.map((one) => one.cause)).toEqual(["bulk", "output_capacitors"]);
    expect(causes.reduce((sum, one) => sum + one.shareRatio, 0)).toBeGreaterThan(0.95);
  });
  it("says how much the read values explain, and what is left beyond the assumptions", () => {
    const half = rippleAttribution(found, { volts: 0.05, highVolts: 0.07 });
    expect(half.explainedRatio).toBeCloseTo(0.5, 1);
    expect(half.unexplainedVolts).toBeCloseTo(0.03, 2);
    expect(rippleAttribution(found, { volts: 0.2, highVolts: 0.3 })).toMatchObject({
      explainedRatio: 1,
      unexplainedVolts: 0,
    });
  });
});

describe("fitHarmonics", () => {
  it("finds amplitudes in a window that a plain spectrum would smear, beside a drift", () => {
    const samples = wave(777, (t) => 5 + 40 * t + 0.3 * Math.sin(2 * Math.PI * 9000 * t + 1), 3e-6);
    const fit = fitHarmonics(samples, 3e-6, 9000, [1, 2]);
    expect(fit.amplitudes.get(1)).toBeCloseTo(0.3, 5);
    expect(fit.amplitudes.get(2)).toBeLessThan(1e-5);
    expect(fit.residualMeanSquare).toBeLessThan(1e-9);
  });
});

describe("decimate", () => {
  it("loses no single sample that stands out", () => {
    const samples = wave(100_000, (_, n) => (n === 54_321 ? 9 : 0));
    const columns = decimate(samples, interval, 300);
    expect(columns).toHaveLength(300);
    expect(Math.max(...columns.map((one) => one.high))).toBe(9);
  });
});
