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
import type { PartKind } from "../board/board";
import { unknownConverter } from "../board/converterDescription";
import type { Section } from "../board/sections";
import type { Topology } from "../facts/deviceProfiles";
import type { JobFacts } from "../facts/jobFacts";
import { judgeBoard } from "../judgement/judgeBoard";
import type { Reading } from "../readings/reading";
import { faultEvidence, jobEvidence } from "./faultEvidence";
import { faultKnowledge, knowledgeOfBoard } from "./faultKnowledge";

const told = (facts: JobFacts) => jobEvidence(facts, judgeBoard(facts, sampleRules.judgement), sampleRules);
const evidenceOf = (facts: JobFacts) => faultEvidence(facts, judgeBoard(facts, sampleRules.judgement), sampleRules);
const cold = (
  terminals: string,
  quantity: "resistance" | "diode_drop",
  value: number | null,
  more: Partial<Reading> = {},
) =>
  sampleReading("X1", {
    ...{ fittedPartId: null, quantity, terminals, value, coarseCode: value === null ? "over_range" : null },
    ...{ circuitState: "in_circuit", frequencyHertz: null },
    ...more,
  });

/** One bad part at a place: which findings it is. */
function bad(kind: PartKind, section: Section | null, reading: Reading, markedOhms: number | null = null) {
  const nets = section === null ? [] : [sampleNet({ id: "n", section })];
  const positions = [samplePosition("X1", { kind, netId: section && "n", markedOhms })];
  const found = evidenceOf(sampleJob({ symptoms: [], nets, positions, fittedParts: [], readings: [reading] }));
  return [...found].filter(([, isSeen]) => isSeen).map(([finding]) => finding);
}

describe("where a part sits decides what it is", () => {
  const shortedChannel = cold("D,S", "resistance", 0.4, { circuitState: "out" });
  it.each([
    ["transistor", null, shortedChannel, null, "switch_reads_shorted"],
    ["transistor", "bulk", shortedChannel, null, "switch_reads_shorted"],
    ["transistor", "pfc", shortedChannel, null, "boost_switch_reads_shorted"],
    ["transistor", "output", shortedChannel, null, "output_switch_reads_shorted"],
    ["transistor", "bulk", cold("G,S", "resistance", 60, { circuitState: "out" }), null, "switch_reads_shorted"],
    ["diode", "pfc", cold("A,K", "diode_drop", 0.01), null, "boost_diode_reads_shorted"],
    ["diode", "bulk", cold("A,K", "diode_drop", 0.01), null, "clamp_reads_shorted"],
    ["diode", "vcc", cold("A,K", "diode_drop", null), null, "control_rectifier_bad"],
    ["diode", "output", cold("A,K", "diode_drop", 0.01), null, "rectifier_reads_shorted"],
    ["diode", "output", cold("A,K", "diode_drop", null), null, "rectifier_reads_open"],
    ["zener", "output", cold("A,K", "diode_drop", 0.01), null, "output_clamp_reads_shorted"],
    ["resistor", null, cold("1,2", "resistance", null), 0.22, "shunt_reads_open"],
    ["resistor", null, cold("1,2", "resistance", null), 4.7, "fusible_reads_open"],
    ["resistor", "bulk", cold("1,2", "resistance", null), 22, "fusible_reads_open"],
    ["resistor", "bulk", cold("1,2", "resistance", 5e6), 220e3, "bleeder_reads_open"],
    ["resistor", "vcc", cold("1,2", "resistance", 5e6), 470e3, "start_resistor_reads_open"],
    ["resistor", "vcc", cold("1,2", "resistance", null), 22, "gate_parts_read_wrong"],
    ["resistor", "output", cold("1,2", "resistance", null), 0.1, null],
    ["ic", "vcc", cold("VCC,GND", "resistance", 3), null, "control_ic_reads_shorted"],
    ["ic", "standby", cold("VCC,GND", "resistance", 10), null, "standby_switcher_reads_shorted"],
    ["varistor", null, cold("1,2", "resistance", 3), null, "varistor_reads_shorted"],
    ["film", null, cold("1,2", "resistance", 0.5), null, "x_capacitor_bad"],
    ["film", "output", cold("1,2", "resistance", 0.5), null, "ceramic_reads_shorted"],
    ["film", "gate", cold("1,2", "resistance", 0.5), null, "resonant_capacitor_bad"],
    ["diode", "gate", cold("A,K", "diode_drop", null), null, "bootstrap_reads_wrong"],
    ["ic", "gate", cold("VCC,GND", "resistance", 3), null, "gate_driver_reads_shorted"],
    ["thermal-fuse", null, cold("1,2", "resistance", null), null, "thermal_fuse_reads_open"],
    ["relay", null, cold("coil", "resistance", null), null, "relay_reads_bad"],
    ["relay", null, cold("contact", "resistance", 0.2), null, "relay_reads_bad"],
    ["ptc", null, cold("1,2", "resistance", null), null, "inrush_limiter_reads_open"],
    ["fuse", null, cold("1,2", "resistance", null), null, "fuse_open"],
    ["fuse", null, cold("1,2", "resistance", 6), null, null],
    [
      "transformer",
      null,
      cold("rings", "resistance", null, { quantity: "tester_band", coarseCode: "band_bad" }),
      null,
      "transformer_rings_short",
    ],
  ] as const)("a bad %s at %s", (kind, section, reading, markedOhms, finding) => {
    expect(bad(kind, section, reading, markedOhms)).toEqual(finding === null ? [] : [finding]);
  });
});

describe("what two parts could show", () => {
  const coupler = (at: string) => samplePosition(at, { kind: "optocoupler" });
  const lamp = (at: string, value: number | null) => [
    sampleReading(at, {
      quantity: "diode_drop",
      value,
      terminals: "A,K",
      ...(value === null ? { coarseCode: "over_range" as const } : {}),
    }),
  ];
  const told = (readings: readonly Reading[]) =>
    evidenceOf(
      sampleJob({ symptoms: [], nets: [], fittedParts: [], positions: [coupler("U2"), coupler("U6")], readings }),
    ).get("coupler_or_reference_bad");
  it("is not seen once both were tested, and seen with the first", () => {
    expect(told(lamp("U2", 1.05))).toBeUndefined();
    expect(told([...lamp("U2", 1.05), ...lamp("U6", 1.05)])).toBe(false);
    expect(told([...lamp("U2", 1.05), ...lamp("U6", null)])).toBe(true);
    expect(told(lamp("U6", null))).toBe(true);
  });
});

describe("a film capacitor that has lost its value", () => {
  const read = (value: number, topology: Topology, section: Section | null, more: Partial<Reading> = {}) =>
    evidenceOf(
      sampleJob({
        device: { kind: "small-appliance", topology, ageYears: null },
        symptoms: [],
        nets: section === null ? [] : [sampleNet({ id: "n", section })],
        positions: [samplePosition("X1", { kind: "film", netId: section && "n" })],
        fittedParts: [samplePart("X1", { capacitanceFarads: 1e-6 })],
        readings: [sampleReading("X1", { quantity: "capacitance", value, circuitState: "out", ...more })],
      }),
    );
  it("is found off the board, where its value matters", () => {
    expect(read(0.6e-6, "series_dropper", null).get("dropper_capacitor_low")).toBe(true);
    expect(read(0.95e-6, "series_dropper", null).get("dropper_capacitor_low")).toBe(false);
    expect(read(0.6e-6, "series_dropper", null, { circuitState: "in_circuit" }).has("dropper_capacitor_low")).toBe(
      false,
    );
    expect(read(0.6e-6, "pfc_resonant_with_standby", "gate").get("resonant_capacitor_bad")).toBe(true);
    expect(read(0.95e-6, "pfc_resonant_with_standby", "gate").get("resonant_capacitor_bad")).toBe(false);
    expect(read(0.6e-6, "flyback", null).get("x_capacitor_low")).toBe(true);
    expect(read(0.95e-6, "flyback", null).get("x_capacitor_low")).toBe(false);
  });
});

describe("what the counter tried and what runs", () => {
  const nets = [sampleNet(), sampleNet({ id: "sb", section: "standby", nominalVolts: 5 })];
  const job = (more: Partial<JobFacts>) => sampleJob({ symptoms: [], nets, ...more });
  const checks = (more: object, outputVolts: number | null = null) => job({ intake: { checks: more, outputVolts } });
  it("is heard, every check of it", () => {
    expect(evidenceOf(checks({ leadAndFuse: "good" })).get("lead_checked_good")).toBe(true);
    expect(evidenceOf(checks({ leadAndFuse: "good", rearSwitch: "bad" })).has("lead_checked_good")).toBe(false);
    expect(evidenceOf(checks({ outputLead: "bad" })).get("output_lead_checked_bad")).toBe(true);
    expect(evidenceOf(checks({ lamps: "bad" })).get("light_tested_bad")).toBe(true);
    expect(evidenceOf(checks({ rangeSwitch: "bad" })).get("range_switch_checked_bad")).toBe(true);
    expect(evidenceOf(job({ symptoms: ["tingle", "residual_current_tripped"] })).size).toBe(0);
    expect(evidenceOf(checks({ lamps: "good" })).get("light_tested_good")).toBe(true);
    expect(evidenceOf(checks({ swap: "good" })).get("load_fed_well")).toBe(true);
    expect(evidenceOf(checks({ benchFeed: "bad" })).get("bench_supply_feeds_load_badly")).toBe(true);
    expect(evidenceOf(checks({}, 11.9)).get("supply_runs")).toBe(true);
    expect(evidenceOf(checks({}, -1)).has("supply_runs")).toBe(false);
  });
  it("runs by a rail near its value, never by one fed far off, never in a unit that comes and goes", () => {
    const at = (netId: string, value: number) => sampleRailReading(netId, { value });
    expect(evidenceOf(job({ readings: [at("net-12", 12.1)] })).get("supply_runs")).toBe(true);
    expect(evidenceOf(job({ readings: [at("net-12", 6)] })).has("supply_runs")).toBe(false);
    const standby = evidenceOf(job({ readings: [at("sb", 5.05)] }));
    expect([standby.has("supply_runs"), standby.get("standby_runs")]).toEqual([false, true]);
    expect(evidenceOf(job({ symptoms: ["intermittent"], readings: [at("net-12", 12.1)] })).has("supply_runs")).toBe(
      false,
    );
    expect(evidenceOf(job({ symptoms: ["hum"] })).get("supply_runs")).toBe(true);
    expect(evidenceOf(job({ symptoms: ["hum", "dead"] })).has("supply_runs")).toBe(false);
  });
  it("takes no unloaded output for too high that nobody may sense, and a short that was found stays found", () => {
    const idle = (value: number, more: Partial<JobFacts> = {}) =>
      evidenceOf(job({ readings: [sampleRailReading("net-12", { value, loadAmps: 0 })], ...more })).get(
        "rail_too_high",
      );
    expect([idle(14), idle(18)]).toEqual([undefined, true]);
    expect(idle(14, { nets: [sampleNet()] })).toBe(true);
    const sensed = (isSensed: boolean) => ({
      nets: [sampleNet({ converter: { ...unknownConverter("forward"), isSensed } }), sampleNet({ id: "sb" })],
    });
    expect([idle(14, sensed(true)), idle(14, sensed(false)), idle(18, sensed(false))]).toEqual([true, undefined, true]);
    const loaded = (loadAmps: number) =>
      evidenceOf(job({ readings: [sampleRailReading("net-12", { value: 14, loadAmps })], ...sensed(false) }));
    expect([loaded(1).get("rail_too_high"), loaded(0.01).has("rail_too_high")]).toEqual([true, false]);
    const ohms = (value: number) =>
      sampleRailReading("net-12", { quantity: "resistance", value, isPowered: false, loadAmps: null });
    expect(evidenceOf(job({ readings: [ohms(0.4), ohms(300)] })).get("rail_reads_shorted")).toBe(true);
  });
});

it("hears good readings of a bank before it is cleared, and bad ones before it is condemned", () => {
  const facts = (ohms: number) =>
    sampleJob({
      symptoms: [],
      readings: ["C1", "C2"].map((at) =>
        sampleReading(at, { value: ohms, circuitState: "in_circuit", temperatureCelsius: 20 }),
      ),
    });
  const soft = (ohms: number) => told(facts(ohms)).soft.get("output_capacitor_bad") ?? 1;
  expect(soft(0.016)).toBeLessThan(0.8);
  expect(soft(0.06)).toBeGreaterThan(2);
});

describe("the knowledge of a board", () => {
  const general = faultKnowledge("flyback");
  const prior = (code: string, positions: readonly ReturnType<typeof samplePosition>[]) => {
    const nets = [sampleNet(), sampleNet({ id: "bulk", section: "bulk" })];
    return knowledgeOfBoard(general, { positions, nets }).find((one) => one.code === code)?.prior ?? 0;
  };
  const outputs = ["C1", "C2", "C3"].map((at) => samplePosition(at));
  it("hardly has what the board has no part for, once its parts were entered", () => {
    const usual = general.find((one) => one.code === "control_capacitor_dried")?.prior ?? 0;
    expect(prior("control_capacitor_dried", outputs)).toBe(usual);
    expect(prior("control_capacitor_dried", [...outputs, samplePosition("C9", { netId: "bulk" })])).toBeLessThan(
      usual / 5,
    );
    expect(prior("output_capacitors_dried", [...outputs, samplePosition("C9", { netId: "bulk" })])).toBe(
      general.find((one) => one.code === "output_capacitors_dried")?.prior,
    );
  });
  it("of a host has no mains in it, and of one without standby no standby", () => {
    const codes = (topology: Parameters<typeof faultKnowledge>[0]) => faultKnowledge(topology).map((one) => one.code);
    for (const code of ["bridge_shorted", "lead_or_inlet_open", "control_capacitor_dried"]) {
      expect(codes("buck_board")).not.toContain(code);
    }
    expect(codes("flyback")).not.toContain("standby_capacitor_dried");
    expect(codes("flyback_with_standby")).toContain("standby_capacitor_dried");
  });
});
