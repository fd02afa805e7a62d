import { median, predictRipple, unknownConverter } from "@pale-cap/core";
import { describe, expect, it } from "vitest";
import { sampleJob, samplePart, samplePosition, sampleReading } from "../../../../core/testing/sampleJob";
import { waveformCsv } from "./exports";
import { captureColumns, rippleColumns } from "./rippleSeries";

const facts = sampleJob({
  positions: [samplePosition("C1")],
  fittedParts: [samplePart("C1")],
  readings: [sampleReading("C1", { value: 0.3 })],
});
const prediction = predictRipple({
  board: { ...facts, chosen: new Map() },
  netId: "net-12",
  converter: unknownConverter("flyback_discontinuous"),
  railVolts: 12,
  loadAmps: 2,
  temperatureCelsius: 20,
});
if (!prediction) throw new Error("no prediction");
const period = prediction.described.source.periodSeconds;

describe("the columns of the chart", () => {
  it("show two periods that are alike, with the whole ripple of each state", () => {
    const columns = rippleColumns(prediction, null);
    const half = columns.length / 2;
    columns.slice(0, half).forEach((one, n) => {
      expect(columns[n + half]?.measured).toBeCloseTo(one.measured, 9);
    });
    const swing = Math.max(...columns.map((one) => one.measured)) - Math.min(...columns.map((one) => one.measured));
    expect(swing / prediction.states.measured.loadPeakToPeakVolts).toBeGreaterThan(0.9);
    expect(columns.every((one) => one.captured === null)).toBe(true);
  });
  it("lay a capture over the prediction, whatever its phase and its mean", () => {
    const course = prediction.states.measured.ripple;
    const node = course.nodeVolts[0];
    const interval = period / 150;
    const samples = Float32Array.from({ length: 1200 }, (_, n) => {
      const at = (n * interval + 0.61 * period) % period;
      const index = course.seconds.findIndex((one) => one >= at);
      return 12 + (node?.values[Math.max(index, 0)] ?? 0);
    });
    const columns = rippleColumns(prediction, { samples, intervalSeconds: interval, meanVolts: 12 });
    const misses = columns.map(({ captured, measured }) =>
      captured ? Math.abs((captured[0] + captured[1]) / 2 - measured) : Number.NaN,
    );
    const middle = median(misses);
    expect(middle).toBeLessThan(0.05 * prediction.states.measured.loadPeakToPeakVolts);
  });
  it("leave out a capture with too few samples a period", () => {
    const samples = new Float32Array(1000);
    const columns = rippleColumns(prediction, { samples, intervalSeconds: period / 2, meanVolts: 0 });
    expect(columns.every((one) => one.captured === null)).toBe(true);
  });
  it("keep every spike of a whole capture, about its mean", () => {
    const samples = Float32Array.from({ length: 50_000 }, (_, n) => (n === 31_415 ? 9 : 5));
    const columns = captureColumns(samples, 1e-6, 5);
    expect(columns).toHaveLength(600);
    expect(Math.max(...columns.map((one) => one.captured[1]))).toBe(4);
  });
});

it("an exported waveform is a line of titles with units, then seconds and volts", () => {
  const text = waveformCsv(Float32Array.from([0.5, -0.25]), 4e-7, "5 V, two amps");
  expect(text).toBe("time (s),5 V  two amps (V)\n0,0.5\n4e-7,-0.25\n");
});
