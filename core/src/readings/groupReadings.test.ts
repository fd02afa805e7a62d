import { describe, expect, it } from "vitest";
import { sampleReading } from "../../testing/sampleJob";
import { groupReadings, isSameFrequency } from "./groupReadings";

describe("groupReadings", () => {
  it("joins repeats under one condition and keeps other conditions apart, the most useful first", () => {
    const readings = [
      sampleReading("C1", { value: 0.05, circuitState: "in_circuit" }),
      sampleReading("C1", { value: 0.3, frequencyHertz: 1000 }),
      sampleReading("C1", { value: 0.04 }),
      sampleReading("C1", { value: 0.06, circuitState: "out" }),
      sampleReading("C1", { value: 0.05, temperatureCelsius: 60 }),
      sampleReading("C1", { quantity: "capacitance", value: 1e-3, frequencyHertz: 120 }),
    ];
    const groups = groupReadings(readings, "esr");
    expect(groups.map((one) => [one.isInCircuit, one.frequencyHertz, one.temperatureCelsius, one.count])).toEqual([
      [false, 100e3, 20, 2],
      [false, 100e3, 60, 1],
      [false, 1000, 20, 1],
      [true, 100e3, 20, 1],
    ]);
    expect(groups[0]?.value).toBeCloseTo(0.05, 12);
    expect(groups[0]?.readingIds).toEqual([readings[2]?.id, readings[3]?.id]);
    expect(groups[0]?.quantity).toBe("esr");
  });
  it("takes nothing below zero and nothing without a number, and a zero for what it is", () => {
    const of = (value: number | null) => groupReadings([sampleReading("C1", { value })], "esr").length;
    expect([-1e-9, null, 0].map(of)).toEqual([0, 0, 1]);
  });
  it.each([
    ["esr", 100e3],
    ["capacitance", 120],
    ["dissipation", 120],
    ["voltage_loss", 0],
  ] as const)("assumes of %s without a frequency %s Hz", (quantity, hertz) => {
    expect(groupReadings([sampleReading("C1", { quantity, frequencyHertz: null })], quantity)[0]?.frequencyHertz).toBe(
      hertz,
    );
  });
  it("looks for capacitance nearest to 120 Hz", () => {
    const at = (frequencyHertz: number) =>
      sampleReading("C1", { quantity: "capacitance", value: 1e-3, frequencyHertz });
    expect(groupReadings([at(10e3), at(1000), at(100)], "capacitance").map((one) => one.frequencyHertz)).toEqual([
      100, 1000, 10e3,
    ]);
  });
});

it("frequencies nearer than half as much again count as one", () => {
  expect([149, 151].map((hertz) => isSameFrequency(100, hertz))).toEqual([true, false]);
  expect([149, 151].map((hertz) => isSameFrequency(hertz, 100))).toEqual([true, false]);
});
