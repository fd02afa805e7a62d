import { describe, expect, it } from "vitest";
import { sampleNet, samplePosition, sampleReading } from "../../testing/sampleJob";
import type { BoardPosition } from "../board/board";
import { deviceTests } from "../board/deviceTests";
import type { VisualSign } from "../facts/visualSigns";
import type { Reading } from "../readings/reading";
import { judgeDevice } from "./judgeDevice";

function judge(kind: BoardPosition["kind"], readings: readonly Reading[], more: Partial<BoardPosition> = {}) {
  const position = samplePosition("X1", { kind, ...more });
  return judgeDevice(position, { positions: [position], nets: [sampleNet()], readings });
}
const read = (terminals: string | null, value: number | null, more: Partial<Reading> = {}) =>
  sampleReading("X1", {
    fittedPartId: null,
    quantity: "resistance",
    value,
    coarseCode: value === null ? "over_range" : null,
    terminals,
    circuitState: "in_circuit",
    frequencyHertz: null,
    ...more,
  });
const drop = (terminals: string, value: number | null, more: Partial<Reading> = {}) =>
  read(terminals, value, { quantity: "diode_drop", ...more });
const live = (terminals: string, value: number) => read(terminals, value, { quantity: "dc_voltage", isPowered: true });

describe("judgeDevice", () => {
  it("clears a whole fuse, and says what that does not clear", () => {
    expect(judge("fuse", [read("1,2", 0.2)])).toMatchObject({ verdict: "sound", traps: ["fuse_clears_nothing"] });
    expect(judge("fuse", [read("1,2", null)])?.verdict).toBe("failed");
    expect(judge("fuse", [])?.verdict).toBe("not_measured");
  });
  it("condemns a body that burst, whatever its tests, and no other sign", () => {
    const seen = (sign: VisualSign) => ({
      ...{ fittedPartId: null, positionId: "at-X1", sign, state: "seen" as const, sequence: 1 },
      observedAt: "2026-11-23T09:00:00Z",
    });
    const looked = (kind: BoardPosition["kind"], sign: VisualSign) => {
      const position = samplePosition("X1", { kind });
      const board = { positions: [position], nets: [], readings: [read("1,2", 0.2)], signs: [seen(sign)] };
      return judgeDevice(position, board);
    };
    expect(looked("fuse", "burst")).toMatchObject({ verdict: "failed", seen: ["burst"] });
    expect(looked("fuse", "board_browned")).toMatchObject({ verdict: "sound", seen: ["board_browned"] });
    // A connector has no standard test, and a face all the same.
    expect(looked("connector", "burst")?.verdict).toBe("failed");
    expect(looked("connector", "cracked_joint")?.verdict).toBe("not_measured");
    expect(judge("connector", [])).toBeNull();
  });
  it("asks a new part anew, and still knows what the old one was", () => {
    const position = samplePosition("X1", { kind: "fuse" });
    const tick = (step: "removed" | "fitted", sequence: number, isDone = true) => ({
      ...{ positionId: "at-X1", step, isDone, at: "2026-11-23T10:00:00Z", sequence },
      ...{ clockId: null, receivedAt: null, clockAheadSeconds: null },
    });
    const old = read("1,2", null, { sequence: 1 });
    const burst = { ...{ fittedPartId: null, positionId: "at-X1", sign: "burst" as const, state: "seen" as const } };
    const signs = [{ ...burst, sequence: 2, observedAt: "2026-11-23T09:00:00Z" }];
    const fit = [tick("removed", 3), tick("fitted", 4)];
    const verdict = (readings: readonly Reading[], ticks: ReturnType<typeof tick>[], asked: "now" | "found") =>
      judgeDevice(position, { positions: [position], nets: [], readings, ticks, signs }, asked)?.verdict;
    expect(verdict([old], [tick("removed", 3)], "now")).toBe("failed");
    expect(verdict([old], fit, "now")).toBe("not_measured");
    const fresh = read("1,2", 0.1, { sequence: 5 });
    expect([verdict([old, fresh], fit, "now"), verdict([old, fresh], fit, "found")]).toEqual(["sound", "failed"]);
    // Taken back, it is the old one that stands there.
    expect(verdict([old], [...fit, tick("fitted", 6, false)], "now")).toBe("failed");
  });
  it("wants all four diodes of a bridge, and looks downstream where only across is wrong", () => {
    const four = ["L,+", "N,+", "-,L", "-,N"].map((pins) => drop(pins, 0.52));
    expect(judge("bridge", four.slice(1))?.verdict).toBe("cannot_tell");
    expect(judge("bridge", [...four, drop("+,-", null)])?.verdict).toBe("sound");
    const across = judge("bridge", [...four, drop("+,-", 0.4)]);
    expect([across?.verdict, across?.traps]).toEqual(["cannot_tell", ["across_points_downstream"]]);
    expect(judge("bridge", [...four.slice(1), drop("L,+", 0.01)])?.verdict).toBe("failed");
  });
  it("does not take a charging capacitor for a shorted rectifier, and does take one once it is up", () => {
    const half = [drop("A,K", 0.45), drop("K,A", 1.2)];
    expect(judge("diode", half)).toMatchObject({ verdict: "cannot_tell", traps: ["charging_capacitor"] });
    expect(judge("diode", [drop("A,K", 0.45), drop("K,A", 1.2, { circuitState: "lead_lifted" })])?.verdict).toBe(
      "failed",
    );
    expect(judge("diode", [drop("A,K", 0.45), drop("K,A", null)])?.verdict).toBe("sound");
    // The second half of a dual one counts as soon as it was read.
    expect(judge("diode", [drop("A,K", 0.45), drop("K,A", null), drop("A2,K", 0.02)])?.verdict).toBe("failed");
  });
  it("tests a transistor three ways, and condemns neither of two in parallel", () => {
    const three = [read("D,S", 3e6), read("G,S", 9e3), read("D,G", 5e6)];
    expect(judge("transistor", three)?.verdict).toBe("sound");
    expect(judge("transistor", three.slice(1))?.verdict).toBe("cannot_tell");
    expect(judge("transistor", [read("D,S", 0.4), ...three.slice(1)])?.verdict).toBe("failed");
    const [one, two] = [samplePosition("X1", { kind: "transistor" }), samplePosition("X2", { kind: "transistor" })];
    const board = { positions: [one, two], nets: [sampleNet()], readings: [read("D,S", 0.4)] };
    expect(judgeDevice(one, board)).toMatchObject({ verdict: "cannot_tell", traps: ["short_may_be_parallel"] });
    const lifted = { ...board, readings: [read("D,S", 0.4, { circuitState: "lead_lifted" })] };
    expect(judgeDevice(one, lifted)?.verdict).toBe("failed");
  });
  it("takes a junction that reads short beside a twin for the twin's as well, until a lead is lifted", () => {
    const [one, two] = [samplePosition("X1", { kind: "diode" }), samplePosition("X2", { kind: "diode" })];
    const half = [drop("A,K", 0.45)];
    const beside = (positions: readonly BoardPosition[], more: Partial<Reading> = {}) =>
      judgeDevice(one, { positions, nets: [sampleNet()], readings: [...half, drop("K,A", 0.02, more)] });
    expect(beside([one, two])).toMatchObject({ verdict: "cannot_tell", traps: ["short_may_be_parallel"] });
    expect(beside([one, two], { circuitState: "lead_lifted" })?.verdict).toBe("failed");
    expect(beside([one])?.verdict).toBe("failed");
    expect(beside([one], { circuitState: "lead_lifted" })?.verdict).toBe("failed");
  });
  it("takes a lifted resistance that is too low for bad, in circuit for a neighbour's", () => {
    const of = (more: Partial<Reading> = {}) => {
      const three = [read("D,S", 3e6), read("G,S", 9e3), read("D,G", 5e6)];
      return judge("transistor", [read("D,S", 400, more), ...three.slice(1)])?.verdict;
    };
    expect([of(), of({ circuitState: "lead_lifted" })]).toEqual(["cannot_tell", "failed"]);
  });
  it("holds a resistor against its marking: high is bad, low in circuit may be a neighbour", () => {
    const shunt = (value: number | null, more: Partial<Reading> = {}) =>
      judge("resistor", [read("1,2", value, more)], { markedOhms: 0.33 })?.verdict;
    expect([shunt(0.34), shunt(null), shunt(0.6)]).toEqual(["sound", "failed", "failed"]);
    expect([shunt(0.1), shunt(0.1, { circuitState: "out" })]).toEqual(["cannot_tell", "failed"]);
    expect(judge("resistor", [read("1,2", 22)])).toMatchObject({ verdict: "cannot_tell", traps: ["needs_marking"] });
  });
  it("judges a supply by its least and most together, never by one", () => {
    const cold = read("VCC,GND", 20e3);
    const only = judge("ic", [cold, live("VCC,GND most", 14)]);
    expect([only?.verdict, only?.traps]).toEqual(["cannot_tell", ["needs_least_and_most"]]);
    expect(judge("ic", [cold, live("VCC,GND least", 13.6), live("VCC,GND most", 14)])?.verdict).toBe("sound");
    expect(judge("ic", [cold, live("VCC,GND least", 7.5), live("VCC,GND most", 16)])?.traps).toContain("pulses");
    const regulator = (least: number) =>
      judge("regulator", [read("OUT,GND", 400), live("OUT,GND least", least), live("OUT,GND most", 12.1)])?.verdict;
    expect([regulator(11.9), regulator(10.9)]).toEqual(["sound", "failed"]);
  });
  it("reads a pulsing supply as a chip that tries and as a regulator that fails", () => {
    const pulsing = [live("least", 2), live("most", 14)];
    const of = (kind: "ic" | "regulator") => {
      const tests = deviceTests[kind] ?? [];
      const named = tests.filter((one) => one.code === "supply_least" || one.code === "supply_most");
      const readings = named.map((one, n) => live(one.terminals, pulsing[n]?.value ?? 0));
      return judge(kind, readings)
        ?.lines.filter((one) => one.test.isLive && one.reading)
        .map((one) => one.outcome);
    };
    expect(new Set(of("ic"))).toEqual(new Set(["doubtful"]));
    expect(new Set(of("regulator"))).toEqual(new Set(["bad"]));
  });
  it("takes a coupler's lamp, a ring tester and a finger on a fan", () => {
    expect(judge("optocoupler", [drop("A,K", 1.1)])?.verdict).toBe("sound");
    expect(judge("optocoupler", [drop("A,K", 1.1), read("C,E", null)])?.verdict).toBe("failed");
    const rings = (coarseCode: Reading["coarseCode"]) =>
      read("rings", null, { quantity: "tester_band", coarseCode, circuitState: "out" });
    expect(judge("transformer", [read("1,2", 0.8), rings("band_bad")])?.verdict).toBe("failed");
    const felt = (coarseCode: Reading["coarseCode"]) => read(null, null, { quantity: "observation", coarseCode });
    expect([judge("fan", [felt("turns_hard")])?.verdict, judge("fan", [felt("turns_freely")])?.verdict]).toEqual([
      "failed",
      "sound",
    ]);
    expect(judge("connector", [])).toBeNull();
  });
  it("counts only what was read on this part, between the pins of a test and of its quantity", () => {
    const elsewhere = { ...read("1,2", null), targetId: "at-X2" };
    expect(judge("fuse", [elsewhere])?.verdict).toBe("not_measured");
    expect(judge("fuse", [read("2,1", null)])?.verdict).toBe("not_measured");
    expect(judge("fuse", [drop("1,2", 0.2)])?.verdict).toBe("not_measured");
    // Without pins the first test is meant, and no other.
    expect(judge("fuse", [read(null, 0.2)])?.verdict).toBe("sound");
    expect(judge("transistor", [read(null, 3e6)])?.lines.map((one) => one.outcome)).toEqual([
      "in_order",
      "not_done",
      "not_done",
    ]);
    expect(judge("fuse", [read("1,2", null), read("1,2", 0.2)])?.verdict).toBe("sound");
  });
  it("takes for a twin only a part of the same kind on the same net", () => {
    const first = samplePosition("X1", { kind: "transistor" });
    const beside = (more: Partial<BoardPosition>, netId: string | null = "net-12") => {
      const one = { ...first, netId };
      const other = samplePosition("X2", { kind: "transistor", netId, ...more });
      return judgeDevice(one, { positions: [one, other], nets: [sampleNet()], readings: [read("D,S", 0.4)] })?.verdict;
    };
    expect(beside({})).toBe("cannot_tell");
    expect(beside({ kind: "diode" })).toBe("failed");
    expect(beside({ netId: "net-5" })).toBe("failed");
    expect(beside({}, null)).toBe("failed");
  });
  it.each([
    [{ markedOhms: 0.33 }, 0.33 * 0.84, "cannot_tell"],
    [{ markedOhms: 0.33 }, 0.33 * 0.86, "sound"],
    [{ markedOhms: 0.33 }, 0.33 * 1.14, "sound"],
    [{ markedOhms: 0.33 }, 0.33 * 1.16, "failed"],
  ])("gives a resistor its tolerance: %o at %d is %s", (more, value, verdict) => {
    expect(judge("resistor", [read("1,2", value)], more)?.verdict).toBe(verdict);
  });
  it("says of a regulator without a nominal voltage that the marking is wanted", () => {
    const position = samplePosition("X1", { kind: "regulator" });
    const readings = [read("OUT,GND", 400), live("OUT,GND least", 11.9), live("OUT,GND most", 12.1)];
    const nets = [sampleNet({ nominalVolts: null })];
    expect(judgeDevice(position, { positions: [position], nets, readings })).toMatchObject({
      verdict: "cannot_tell",
      traps: ["needs_marking"],
    });
  });
});
