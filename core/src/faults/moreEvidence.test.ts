import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import type { CaptureAnalysis } from "../facts/captures";
import type { JobFacts } from "../facts/jobFacts";
import { judgeBoard } from "../judgement/judgeBoard";
import { faultEvidence } from "./faultEvidence";

const evidenceOf = (facts: JobFacts) => faultEvidence(facts, judgeBoard(facts, sampleRules.judgement), sampleRules);
const part = (peakToPeak: number, frequencyHertz: number) => ({ frequencyHertz, peakToPeak, rms: peakToPeak / 3 });

describe("captured ripple as evidence", () => {
  const captured = (doubleMains: number, switching: number): JobFacts => {
    const analysis: CaptureAnalysis = {
      ...{ sampleCount: 1000, intervalSeconds: 1e-6, meanVolts: 12, peakToPeakVolts: 1, limitedPeakToPeakVolts: null },
      ...{ rmsVolts: 0.1, quietPeakToPeakVolts: 1, spikePeakToPeakVolts: 0, spikesPerSecond: 0, mains: null },
      ...{ pulsing: null, driftVoltsPerSecond: 0, dominant: [] },
      doubleMains: part(doubleMains, 100),
      switching: part(switching, 65e3),
    };
    const capture = {
      id: "k",
      netId: "net-12",
      loadAmps: 4,
      analysis,
      measuredAt: "2026-11-23T12:00:00Z",
      sequence: 1,
    };
    return sampleJob({ symptoms: [], captures: [capture] });
  };
  it("is held against the rail's limit: above it seen, far below it not, between them nothing", () => {
    // One per cent of 12 V is 120 mV.
    const evidence = evidenceOf(captured(0.4, 0.01));
    expect([evidence.get("ripple_mains_measured"), evidence.get("ripple_switching_measured")]).toEqual([true, false]);
    expect(evidenceOf(captured(0.08, 0.08)).has("ripple_mains_measured")).toBe(false);
  });
});

describe("supplies under power as evidence", () => {
  const read = (terminals: string, value: number) =>
    sampleReading("U1", {
      ...{ fittedPartId: null, quantity: "dc_voltage", terminals, value, isPowered: true },
      ...{ circuitState: "in_circuit", frequencyHertz: null },
    });
  const chip = (...values: readonly [string, number][]) =>
    evidenceOf(
      sampleJob({
        symptoms: [],
        positions: [samplePosition("U1", { kind: "ic", netId: null })],
        fittedParts: [],
        readings: values.map(([pins, value]) => read(pins, value)),
      }),
    );
  it("need least and most: far apart they pulse, both near nothing it is absent, one alone says nothing", () => {
    const pulses = chip(["VCC,GND least", 7], ["VCC,GND most", 16]);
    expect([pulses.get("control_supply_pulses"), pulses.get("control_supply_absent")]).toEqual([true, false]);
    expect(chip(["VCC,GND least", 0.1], ["VCC,GND most", 0.3]).get("control_supply_absent")).toBe(true);
    expect(chip(["VCC,GND most", 14]).has("control_supply_pulses")).toBe(false);
  });
  it("tell a regulator that is off its rail from one that holds it", () => {
    const regulator = (least: number) =>
      evidenceOf(
        sampleJob({
          symptoms: [],
          nets: [sampleNet()],
          positions: [samplePosition("U1", { kind: "regulator" })],
          fittedParts: [],
          readings: [read("OUT,GND least", least), read("OUT,GND most", 12.05)],
        }),
      ).get("regulator_output_wrong");
    expect([regulator(11.95), regulator(9)]).toEqual([false, true]);
  });
});

it("a resistor with a marking speaks as what it is: a shunt, or a part around the gate", () => {
  const evidence = (markedOhms: number, value: number) =>
    evidenceOf(
      sampleJob({
        symptoms: [],
        positions: [samplePosition("R1", { kind: "resistor", netId: null, markedOhms })],
        fittedParts: [],
        readings: [
          sampleReading("R1", {
            ...{ fittedPartId: null, quantity: "resistance", terminals: "1,2", value, circuitState: "out" },
            frequencyHertz: null,
          }),
        ],
      }),
    );
  expect(evidence(22, 47).get("gate_parts_read_wrong")).toBe(true);
  expect(evidence(22, 21.8).get("gate_parts_read_wrong")).toBe(false);
  expect(evidence(0.33, 5e6).get("shunt_reads_open")).toBe(true);
});
