import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import type { JobFacts } from "../facts/jobFacts";
import { judgeBoard } from "../judgement/judgeBoard";
import type { Reading } from "../readings/reading";
import { nextTargets } from "./nextTargets";

/** C1 alone on the bulk, C2 alone on 5 V, C3 with C4 on 12 V. */
const board = sampleJob({
  symptoms: [],
  nets: [
    sampleNet({ id: "net-bulk", section: "bulk" }),
    sampleNet({ id: "net-5", name: "5 V", section: "standby" }),
    sampleNet(),
  ],
  positions: [
    samplePosition("C1", { netId: "net-bulk" }),
    samplePosition("C2", { netId: "net-5" }),
    samplePosition("C3"),
    samplePosition("C4"),
  ],
  fittedParts: ["C1", "C2", "C3", "C4"].map((one) => samplePart(one)),
});
function propose(
  more: Partial<JobFacts> = {},
  isChargeVerified = true,
  strategy: "failed_only" | "same_group" = "same_group",
) {
  const facts = { ...board, ...more };
  const judgements = judgeBoard(facts, sampleRules.judgement);
  return nextTargets({ facts, judgements, deviceKind: "monitor", strategy, isChargeVerified });
}
const names = (...args: Parameters<typeof propose>) =>
  propose(...args).map((one) => [one.positionId.slice(3), one.quantity, one.circuitState].join(" "));

describe("nextTargets", () => {
  it("starts in circuit, a part alone on its net before one that shares it", () => {
    expect(names().slice(0, 4)).toEqual([
      "C1 esr in_circuit",
      "C2 esr in_circuit",
      "C3 esr in_circuit",
      "C4 esr in_circuit",
    ]);
  });
  it("puts what is behind an open charge last, and says so", () => {
    const proposed = propose({}, false);
    expect(proposed.at(-1)).toMatchObject({ positionId: "at-C1", isChargeOpen: true });
    expect(proposed.filter((one) => one.isChargeOpen).map((one) => one.positionId)).toEqual(["at-C1", "at-C1"]);
  });
  it("looks first where the symptoms point", () => {
    expect(names({ symptoms: ["hum", "ripple_mains"] })[0]).toBe("C1 esr in_circuit");
    expect(names({ symptoms: ["cold_start_fails", "repeated_attempts"] })[0]).toBe("C2 esr in_circuit");
  });
  it("asks for a lifted lead only after the reading in circuit, and for C after that", () => {
    const inCircuit = sampleReading("C2", { value: 0.03, circuitState: "in_circuit" });
    // One look with the ohmmeter first: it tells of a leak for the whole net.
    expect(names({ readings: [inCircuit] })).toContain("C2 resistance in_circuit");
    const ohms = (value: number) =>
      sampleReading("C2", { quantity: "resistance", value, circuitState: "in_circuit", frequencyHertz: null });
    expect(names({ readings: [inCircuit, ohms(12e3)] }).at(-1)).toBe("C2 esr lead_lifted");
    expect(names({ readings: [inCircuit, ohms(20)] })).toContain("C2 resistance lead_lifted");
    const lifted = sampleReading("C2", { value: 0.06 });
    expect(names({ readings: [inCircuit, lifted] })).not.toContain("C2 esr lead_lifted");
  });
  it("lifts no lead to learn about a part that goes out anyway", () => {
    const readings = [sampleReading("C3", { value: 2.5 })];
    expect(names({ readings }).some((one) => one.startsWith("C4"))).toBe(false);
    expect(names({ readings }, true, "failed_only").some((one) => one.startsWith("C4"))).toBe(true);
    expect(names({ readings }).some((one) => one.startsWith("C3"))).toBe(false);
  });

  it("asks for the fuse where the symptoms point to it, once, and for the pins of a bridge one after the other", () => {
    const positions = [
      samplePosition("F1", { kind: "fuse", netId: null }),
      samplePosition("BR1", { kind: "bridge", netId: null }),
    ];
    const ask = (readings: JobFacts["readings"]) =>
      nextTargets({
        facts: sampleJob({ symptoms: ["fuse_blown", "dead"], positions, fittedParts: [], readings }),
        judgements: new Map(),
        deviceKind: "monitor",
        strategy: "failed_only",
        isChargeVerified: false,
      });
    expect(ask([]).map((one) => [one.positionId, one.terminals, one.isChargeOpen])).toEqual(
      expect.arrayContaining([
        ["at-F1", "1,2", true],
        ["at-BR1", "L,+", true],
      ]),
    );
    const read = (at: string, terminals: string) =>
      sampleReading(at, { quantity: "resistance", terminals, fittedPartId: null });
    const after = ask([read("F1", "1,2"), read("BR1", "L,+")]);
    expect(after.map((one) => [one.positionId, one.terminals])).toEqual([["at-BR1", "N,+"]]);
  });
  it("asks with a lead up for what a short beside it condemned, once", () => {
    const short = [
      sampleReading("C1", { value: 0.05, circuitState: "in_circuit" }),
      sampleReading("C1", { quantity: "resistance", value: 0.1, circuitState: "in_circuit", frequencyHertz: null }),
      sampleReading("C1", { value: 0.18, circuitState: "lead_lifted" }),
      sampleReading("C1", { quantity: "capacitance", value: 470e-6, circuitState: "lead_lifted", frequencyHertz: 120 }),
    ];
    const asked = "C1 resistance lead_lifted";
    expect(names({ readings: short })).toContain(asked);
    const lifted = sampleReading("C1", { quantity: "resistance", value: 5e6, circuitState: "lead_lifted" });
    expect(names({ readings: [...short, lifted] })).not.toContain(asked);
  });
  it("lifts a lead of a resistor that something beside it left open, once", () => {
    const positions = [
      ...board.positions,
      samplePosition("R4", { kind: "resistor", markedOhms: 470e3, netId: "net-5" }),
    ];
    const read = (value: number, circuitState: "in_circuit" | "lead_lifted") =>
      sampleReading("R4", { quantity: "resistance", value, circuitState, terminals: "1,2" });
    const of = (...readings: readonly Reading[]) =>
      names({ positions, readings, symptoms: ["dead"] }).filter((one) => one.startsWith("R4"));
    expect(of()).toEqual(["R4 resistance in_circuit"]);
    expect(of(read(269e3, "in_circuit"))).toEqual(["R4 resistance lead_lifted"]);
    expect(of(read(470e3, "in_circuit"))).toEqual([]);
    expect(of(read(269e3, "in_circuit"), read(469e3, "lead_lifted"))).toEqual([]);
  });
});
