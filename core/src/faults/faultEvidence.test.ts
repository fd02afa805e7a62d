import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleRailReading,
  sampleReading,
  sampleRules,
} from "../../testing/sampleJob";
import type { JobFacts } from "../facts/jobFacts";
import { judgeBoard } from "../judgement/judgeBoard";
import type { Reading } from "../readings/reading";
import { cascadeChecks } from "./cascadeChecks";
import { rankExplanations } from "./explanations";
import { faultEvidence } from "./faultEvidence";
import { faultKnowledge } from "./faultKnowledge";

const evidenceOf = (facts: JobFacts) => faultEvidence(facts, judgeBoard(facts, sampleRules.judgement), sampleRules);
const onDevice = (designator: string, more: Partial<Reading>) =>
  sampleReading(designator, { fittedPartId: null, circuitState: "in_circuit", frequencyHertz: null, ...more });
const ohms = (designator: string, terminals: string, value: number | null) =>
  onDevice(designator, { quantity: "resistance", terminals, value, coarseCode: value === null ? "over_range" : null });
const drop = (designator: string, terminals: string, value: number | null) =>
  onDevice(designator, { quantity: "diode_drop", terminals, value, coarseCode: value === null ? "over_range" : null });
const board = (readings: readonly Reading[], more: Partial<JobFacts> = {}) =>
  sampleJob({
    symptoms: ["dead"],
    nets: [
      sampleNet(),
      sampleNet({ id: "net-pfc", name: "PFC", section: "pfc", nominalVolts: 388 }),
      sampleNet({ id: "net-vcc", name: "Vcc", section: "vcc", nominalVolts: 14 }),
    ],
    positions: [
      samplePosition("C1"),
      samplePosition("C2"),
      samplePosition("C7", { netId: "net-vcc" }),
      samplePosition("F1", { kind: "fuse", netId: null }),
      samplePosition("BR1", { kind: "bridge", netId: null }),
      samplePosition("Q1", { kind: "transistor", netId: "net-pfc" }),
      samplePosition("R1", { kind: "resistor", netId: null }),
      samplePosition("D1", { kind: "diode", netId: null }),
    ],
    fittedParts: [samplePart("C1"), samplePart("C2"), samplePart("C7")],
    readings,
    ...more,
  });

describe("faultEvidence", () => {
  it("takes a capacitor's verdict, and calls a bank sound only when all of it is", () => {
    expect(evidenceOf(board([sampleReading("C1", { value: 2 })])).get("output_capacitor_bad")).toBe(true);
    const sound = (at: string) => [
      sampleReading(at),
      sampleReading(at, { quantity: "capacitance", value: 1e-3, frequencyHertz: 120 }),
    ];
    expect(evidenceOf(board(sound("C1"))).has("output_capacitor_bad")).toBe(false);
    expect(evidenceOf(board([...sound("C1"), ...sound("C2")])).get("output_capacitor_bad")).toBe(false);
  });
  it("reads fuse, transistor, shunt and rectifier, and knows which transistor is the boost's", () => {
    const found = evidenceOf(
      board([ohms("F1", "1,2", null), ohms("Q1", "D,S", 0.3), ohms("R1", "1,2", null), drop("D1", "A,K", 0.21)]),
    );
    expect(Object.fromEntries(found)).toMatchObject({
      dead: true,
      fuse_open: true,
      boost_switch_reads_shorted: true,
      shunt_reads_open: true,
      rectifier_reads_shorted: false,
    });
    expect(found.has("switch_reads_shorted")).toBe(false);
  });
  it("calls a bridge in order only after all four, and shorted after one", () => {
    const three = ["L,+", "N,+", "-,L"].map((pins) => drop("BR1", pins, 0.52));
    expect(evidenceOf(board(three)).has("bridge_reads_shorted")).toBe(false);
    expect(evidenceOf(board([...three, drop("BR1", "-,N", 0.53)])).get("bridge_reads_shorted")).toBe(false);
    expect(evidenceOf(board([drop("BR1", "L,+", 0.01)])).get("bridge_reads_shorted")).toBe(true);
  });
  it("tells a rail that falls under load from one that is low anyway, and trusts no volts behind a lamp", () => {
    const at = (value: number, loadAmps: number, more: Partial<Reading> = {}) =>
      sampleRailReading("net-12", { value, loadAmps, ...more });
    expect(evidenceOf(board([at(12, 0), at(10, 3)])).get("rail_falls_under_load")).toBe(true);
    const low = evidenceOf(board([at(9, 0), at(8, 3)]));
    expect([low.get("rail_too_low"), low.has("rail_falls_under_load")]).toEqual([true, false]);
    const lamp = { rig: { isIsolationTransformer: false, isSeriesLamp: true, isElectronicLimiter: false } };
    expect(evidenceOf(board([at(9, 0, lamp)])).has("rail_too_low")).toBe(false);
  });
});

describe("cascadeChecks", () => {
  const checksOf = (facts: JobFacts) => {
    const knowledge = faultKnowledge("pfc_forward_with_standby");
    const evidence = evidenceOf(facts);
    return cascadeChecks(knowledge, evidence, rankExplanations(knowledge, evidence));
  };
  it("asks after what a shorted boost transistor takes along, and ticks off what was read", () => {
    const checks = checksOf(board([ohms("Q1", "D,S", 0.3), ohms("F1", "1,2", 0.1)]));
    expect(checks.find((one) => one.code === "fuse_open_alone")?.state).toBe("cleared");
    expect(checks.find((one) => one.code === "boost_shunt_open")).toMatchObject({
      state: "open",
      because: "boost_switch_shorted",
    });
  });
  it("puts the over-voltage check before everything where a control capacitor dried", () => {
    const dried = board([sampleReading("C7", { value: 30 })]);
    expect(checksOf(dried)[0]).toMatchObject({ code: "over_voltage", isDangerous: true, state: "open" });
    expect(checksOf(board([])).some((one) => one.code === "over_voltage")).toBe(false);
  });
});
