import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleRules } from "../../testing/sampleJob";
import { OutOfRangeError } from "../errors";
import { expectedReading, type ProbeQuestion } from "./expectedReading";
import { meterRange } from "./meterRange";
import { probePoints } from "./probePoints";

const question: ProbeQuestion = {
  targetKind: "part",
  targetId: "at-C1",
  terminals: null,
  quantity: "esr",
  circuitState: "out",
  frequencyHertz: 100e3,
  temperatureCelsius: 20,
  leadOhms: 0,
};
const two = sampleJob({
  positions: [samplePosition("C1"), samplePosition("C2")],
  fittedParts: [samplePart("C1"), samplePart("C2")],
});
const ask = (more: Partial<ProbeQuestion>, facts = two) =>
  expectedReading(facts, sampleRules, { ...question, ...more });

describe("expectedReading", () => {
  it("is core's band at the tester's own frequency and temperature", () => {
    expect(ask({})?.high).toBeCloseTo(0.046, 3);
    expect(ask({ frequencyHertz: 1000 })?.high).toBeGreaterThan(0.046);
    expect(ask({ temperatureCelsius: 0 })?.high).toBeGreaterThan(0.06);
  });
  it("is half of it for two alike in circuit, and adds leads that are not zeroed", () => {
    const bank = ask({ circuitState: "in_circuit" });
    expect(bank).toMatchObject({ basis: "bank_in_circuit", partCount: 2 });
    expect(bank?.high).toBeCloseTo(0.023, 3);
    expect(ask({ circuitState: "in_circuit", leadOhms: 0.1 })?.high).toBeCloseTo(0.123, 3);
    expect(ask({ quantity: "capacitance", circuitState: "in_circuit" })).toMatchObject({ low: 1.6e-3, partCount: 2 });
  });
  it("falls back to the part itself beside a neighbour of unknown value", () => {
    const unknown = { ...two, fittedParts: [samplePart("C1"), samplePart("C2", { capacitanceFarads: null })] };
    expect(ask({ circuitState: "in_circuit" }, unknown)?.basis).toBe("new_alone");
    expect(ask({ quantity: "capacitance", circuitState: "in_circuit" }, unknown)).toBeNull();
  });
  it("takes a marked tolerance, a leakage limit, a loss limit and a temperature class", () => {
    const tight = { ...two, fittedParts: [samplePart("C1", { toleranceRatio: 0.1 })] };
    expect(ask({ quantity: "capacitance" }, tight)?.low).toBeCloseTo(0.9e-3, 9);
    // 0.01 C V = 0.01 x 1000 uF x 16 V = 160 uA
    expect(ask({ quantity: "leakage_current" })?.high).toBeCloseTo(160e-6, 9);
    expect(ask({ quantity: "dissipation", frequencyHertz: 120 })?.high).toBeCloseTo(0.16, 1);
    expect(ask({ quantity: "temperature" })).toMatchObject({ high: 80, badFrom: 95 });
  });
  it("takes a rail's own limits before the house rule, and turns a negative rail round", () => {
    const rail = { targetKind: "rail", targetId: "net-12", quantity: "dc_voltage" } as const;
    const facts = { ...two, nets: [sampleNet({ nominalVolts: -12, toleranceRatio: 0.1, rippleLimitVolts: 0.05 })] };
    expect(ask(rail, facts)?.low).toBeCloseTo(-13.2, 9);
    expect(ask({ ...rail, quantity: "ripple_voltage" }, facts)?.high).toBe(0.05);
    // A hand-held meter's AC says "at least" and nothing more: no value of it is good.
    expect(ask({ ...rail, quantity: "ac_voltage" }, facts)).toBeNull();
    expect(ask(rail, { ...two, nets: [sampleNet({ nominalVolts: null })] })).toBeNull();
  });
  it("knows a part's pins, and nothing of targets that are gone", () => {
    const bridge = { ...two, positions: [samplePosition("BR1", { kind: "bridge" })] };
    const at = { targetId: "at-BR1", quantity: "diode_drop", terminals: "N,+" } as const;
    expect(ask(at, bridge)).toMatchObject({ basis: "device_test", high: 0.8 });
    expect(ask({ ...at, terminals: "+,-" }, bridge)).toBeNull();
    expect(ask({ targetId: "gone" })).toBeNull();
  });
});

describe("meterRange", () => {
  it("holds twice the expected value in the next 2, 20, 200", () => {
    expect([0.046, 0.1, 0.11, 14, 325].map(meterRange)).toEqual([0.2, 0.2, 2, 200, 2000]);
    expect(() => meterRange(0)).toThrow(OutOfRangeError);
  });
});

describe("probePoints", () => {
  const facts = sampleJob({
    nets: [sampleNet(), sampleNet({ id: "net-vcc", name: "Vcc", section: "vcc", nominalVolts: 14 })],
    positions: [
      samplePosition("C1"),
      samplePosition("C2"),
      samplePosition("C7", { netId: "net-vcc" }),
      samplePosition("BR1", { kind: "bridge", netId: null }),
      samplePosition("Q1", { kind: "transistor", netId: null }),
      samplePosition("C9", { netId: null }),
    ],
    fittedParts: [samplePart("C1"), samplePart("C2"), samplePart("C7")],
  });
  const points = probePoints(facts);
  const of = (group: string) => points.filter((one) => one.group === group);
  it("derives each bank, part, pin test, low-energy test and rail once", () => {
    expect(of("bank").map((one) => one.positionIds)).toEqual([["at-C1", "at-C2"]]);
    expect(of("part")).toHaveLength(9);
    expect(of("device").map((one) => one.terminals)).toEqual(["L,+", "N,+", "-,L", "-,N", "+,-", "D,S", "G,S", "D,G"]);
    expect(of("rail")).toHaveLength(4);
    expect(new Set(points.map((one) => one.key)).size).toBe(points.length);
  });
  it("lifts a lead only where a neighbour could hide the part", () => {
    const state = (id: string) => points.find((one) => one.key === `esr-${id}`)?.circuitState;
    expect([state("at-C1"), state("at-C7")]).toEqual(["lead_lifted", "in_circuit"]);
  });
  it("says for every live test which ground black goes to, and the scope's traps", () => {
    const live = points.filter((one) => one.isLive);
    expect(live.every((one) => one.ground !== null && one.cautions.length > 0)).toBe(true);
    expect(points.find((one) => one.key === "ripple-net-vcc")).toMatchObject({
      ground: "hot",
      cautions: ["live_hot_ground", "two_channels", "scope_earth"],
    });
    expect(points.find((one) => one.key === "volts-net-12")?.ground).toBe("cold");
    expect(of("low_energy").map((one) => one.test)).toEqual([
      "rail_injection",
      "rail_warm_spot",
      "vcc_start",
      "vcc_current",
      "gate_waveform",
    ]);
    expect(
      points
        .filter((one) => !one.isLive && one.instrument !== "senses")
        .every((one) => one.cautions.includes("volts_first")),
    ).toBe(true);
  });
});
