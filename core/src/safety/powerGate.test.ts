import { describe, expect, it } from "vitest";
import { samplePosition, samplePower } from "../../testing/sampleJob";
import type { GateItem, GateValue, PowerEvent } from "../facts/powerEvents";
import { powerGate } from "./powerGate";

const board = {
  nets: [],
  positions: [
    samplePosition("BR1", { kind: "bridge", netId: null }),
    samplePosition("Q1", { kind: "transistor", netId: null }),
    samplePosition("Q2", { kind: "transistor", netId: null }),
    samplePosition("R1", { kind: "resistor", netId: null, markedOhms: 0.22 }),
    samplePosition("R2", { kind: "resistor", netId: null, markedOhms: 47e3 }),
  ],
};
const check = (minute: number, item: GateItem, designator: string | null, values: GateValue[], more = {}) =>
  samplePower("gate_check", minute, {
    ...{ item, subjectId: designator && `at-${designator}`, values, hasShort: false },
    ...more,
  });
const all = (minute: number): PowerEvent[] => [
  check(minute, "line_neutral", null, [470e3]),
  check(minute, "bridge", "BR1", [0.95, "open"]),
  check(minute, "bulk", null, ["open"]),
  check(minute, "transistor", "Q1", [220e3]),
  check(minute, "transistor", "Q2", [220e3]),
  check(minute, "shunt", "R1", [0.3]),
];
const gate = (symptoms: string[], events: readonly PowerEvent[]) => powerGate(board, symptoms, events);
const open = (symptoms: string[], events: readonly PowerEvent[]) =>
  gate(symptoms, events)
    .demands.filter((one) => one.state !== "passed")
    .map((one) => `${one.item} ${one.designator ?? ""}`.trim());

describe("the gate", () => {
  it("stands open where nothing blew, and asks nothing", () => {
    expect(gate(["dead"], [])).toEqual({ isShut: false, cause: null, demands: [], overruledBy: null });
  });
  it.each([
    ["fuse_blown", "fuse_told"],
    ["breaker_tripped", "breaker_told"],
    ["bang", "bang_told"],
  ])("is shut by %s told at intake, until each test has its number", (symptom, cause) => {
    expect(gate([symptom], [])).toMatchObject({ isShut: true, cause });
    expect(gate([symptom], all(1))).toMatchObject({ isShut: false, cause });
    for (const left of all(1)) {
      const rest = all(1).filter((one) => one.item !== left.item || one.subjectId !== left.subjectId);
      expect(gate([symptom], rest).isShut).toBe(true);
    }
  });
  it("asks each bridge, power transistor and shunt of the board, and of the unit where it names none", () => {
    expect(open(["fuse_blown"], [])).toEqual([
      "line_neutral",
      "bridge BR1",
      "bulk",
      "transistor Q1",
      "transistor Q2",
      "shunt R1",
    ]);
    const bare = powerGate({ nets: [], positions: [] }, ["fuse_blown"], []);
    expect(bare.demands.map((one) => one.item)).toEqual(["line_neutral", "bridge", "bulk", "transistor", "shunt"]);
    const output = { ...board, nets: [], positions: [samplePosition("C9", { netId: null })] };
    expect(powerGate(output, ["bang"], []).demands).toHaveLength(5);
  });
  it("takes a picked reason for a number", () => {
    const reasoned = [...all(1).slice(0, -1), check(1, "shunt", "R1", [], { reason: "not_there" })];
    expect(gate(["fuse_blown"], reasoned).isShut).toBe(false);
    expect(gate(["fuse_blown"], [...all(1).slice(0, -1), check(1, "shunt", "R1", [])]).isShut).toBe(true);
  });
  it("never opens on a tick that its number contradicts", () => {
    const low = (item: GateItem, designator: string | null, values: GateValue[]) =>
      gate(["fuse_blown"], [...all(1), check(2, item, designator, values)]).isShut;
    expect(low("bulk", null, [9.9])).toBe(true);
    expect(low("bulk", null, [10])).toBe(false);
    expect(low("bridge", "BR1", [0.95, 0.09])).toBe(true);
    expect(low("bridge", "BR1", [0.09, "open"])).toBe(true);
    expect(low("shunt", "R1", [0.1])).toBe(false);
  });
  it("looks closer where one is low: single diodes, the gate of that transistor", () => {
    const lowBridge = [...all(1), check(2, "bridge", "BR1", [0.02, 0.02], { hasShort: true })];
    expect(open(["fuse_blown"], lowBridge)).toEqual(["bridge BR1", "single_diode BR1"]);
    const lowQ2 = [...all(1), check(2, "transistor", "Q2", [2], { hasShort: true })];
    expect(open(["fuse_blown"], lowQ2)).toEqual(["transistor Q2", "gate_source Q2"]);
    // Once the part was replaced and reads well, nothing closer is asked.
    expect(open(["fuse_blown"], [...lowQ2, check(3, "transistor", "Q2", [220e3])])).toEqual([]);
  });
  it("is shut by a short that was found, also where nobody told of a fuse", () => {
    const short = check(1, "bulk", null, [0.3], { hasShort: true });
    expect(gate([], [short])).toMatchObject({ isShut: true, cause: "short_found" });
    expect(gate([], [short, ...all(2)]).isShut).toBe(false);
    // A rail is a matter of the work that was done there.
    expect(gate([], [check(1, "rail", "C1", [0.3], { hasShort: true })]).isShut).toBe(false);
  });
  it("forgets what was tested before something tripped again", () => {
    const blown = samplePower("fuse_blown", 2);
    expect(gate([], [...all(1), blown])).toMatchObject({ isShut: true, cause: "fuse_blown" });
    expect(gate([], [blown, ...all(3)]).isShut).toBe(false);
    expect(gate([], [...all(1), samplePower("breaker_tripped", 2)])).toMatchObject({ cause: "breaker_tripped" });
  });
  it("opens on a reason, until something trips again or a short is found", () => {
    const reason = samplePower("gate_overruled", 1, { note: "limited d.c. feed" });
    expect(gate(["fuse_blown"], [reason])).toMatchObject({ isShut: false, overruledBy: reason });
    expect(gate(["fuse_blown"], [reason, samplePower("fuse_blown", 2)]).isShut).toBe(true);
    expect(gate(["fuse_blown"], [reason, check(2, "bulk", null, [2], { hasShort: true })]).isShut).toBe(true);
  });
  it("is no matter of a rail or a sink that reads low", () => {
    for (const item of ["rail", "sink"] as const) {
      expect(gate([], [check(1, item, null, [0.2], { hasShort: true })])).toMatchObject({ isShut: false, cause: null });
    }
    expect(gate([], [samplePower("first_power", 1)])).toMatchObject({ isShut: false, cause: null });
  });
  it("names the last trip of a kind, and asks for what was told before it where that is of another", () => {
    expect(gate(["fuse_blown"], [samplePower("breaker_tripped", 1)]).cause).toBe("breaker_tripped");
    const asked = open(["residual_current_tripped"], [samplePower("fuse_blown", 1)]);
    expect([asked.includes("line_neutral"), asked.includes("earth_insulation")]).toEqual([true, true]);
    expect(gate(["bang"], [check(1, "bulk", null, [2], { hasShort: true })]).cause).toBe("bang_told");
  });
  it("goes by the order of storing, not by anybody's clock", () => {
    const stored = (sequence: number, one: PowerEvent): PowerEvent => ({ ...one, sequence });
    const tests = all(5).map((one, n) => stored(n + 1, one));
    const blown = samplePower("fuse_blown", 1);
    expect(gate([], [stored(9, blown), ...tests]).isShut).toBe(true);
    expect(gate([], [stored(0, blown), ...tests]).isShut).toBe(false);
  });
});

describe("a residual-current trip", () => {
  const insulation = (values: GateValue[], hasShort = false) =>
    check(3, "earth_insulation", null, values, { hasShort });
  it("asks for the insulation and for no short test", () => {
    expect(open(["residual_current_tripped"], [])).toEqual(["earth_insulation"]);
    expect(open(["tingle"], [])).toEqual(["earth_insulation"]);
    expect([gate(["tingle"], []).cause, gate(["tingle"], [insulation([20e6])]).isShut]).toEqual(["tingle_told", false]);
    expect(open(["tingle", "fuse_blown"], all(1))).toEqual(["earth_insulation"]);
    expect(gate([], [samplePower("residual_current_tripped", 1)]).isShut).toBe(true);
    expect(gate(["residual_current_tripped"], [insulation([20e6])]).isShut).toBe(false);
    expect(gate(["residual_current_tripped"], [insulation([20e3], true)]).isShut).toBe(true);
  });
  it("and a blown fuse ask for both", () => {
    expect(open(["residual_current_tripped", "fuse_blown"], all(1))).toEqual(["earth_insulation"]);
    expect(gate(["fuse_blown"], [...all(1), samplePower("residual_current_tripped", 2)]).isShut).toBe(true);
  });
});

describe("one number across the bulk, as older jobs have it", () => {
  const old = (hasShort: boolean, resistanceOhms: number | null) =>
    samplePower("short_test", 1, { hasShort, resistanceOhms });
  it("answers the bulk alone, and without a number nothing", () => {
    expect(open(["fuse_blown"], [old(false, 4e5)])).not.toContain("bulk");
    expect(open(["fuse_blown"], [old(false, null)])).toContain("bulk");
    expect(gate(["fuse_blown"], [old(false, 4e5)]).isShut).toBe(true);
    expect(gate([], [old(true, null)])).toMatchObject({ isShut: true, cause: "short_found" });
    expect(gate([], [old(false, 0.3)])).toMatchObject({ isShut: true, cause: "short_found" });
  });
});
