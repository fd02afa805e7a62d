import { describe, expect, it } from "vitest";
import {
  sampleCharge,
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  samplePower,
  sampleRailReading,
  sampleReading,
  sampleRules,
  sampleStore,
} from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { PartKind } from "../board/board";
import type { JobAct, JobActKind } from "../facts/jobActs";
import type { JobFacts, ReworkStep, ReworkTick } from "../facts/jobFacts";
import type { PowerEvent } from "../facts/powerEvents";
import { connectedAgainstGate, firstPower } from "./firstPower";
import { jobChargeStates } from "./jobCharge";

const at = "2026-11-23T11:00:00Z";
const tick = (designator: string, step: ReworkStep, sequence: number, isDone = true): ReworkTick => ({
  ...{ positionId: `at-${designator}`, step, isDone, ...sampleMoment, sequence, at },
});
const act = (kind: JobActKind, subjectId: string | null, sequence: number): JobAct => ({
  ...{ kind, subjectId, word: null, note: null, ...sampleMoment, sequence, at },
});
const stored = (sequence: number, event: PowerEvent): PowerEvent => ({ ...event, sequence });
const steps = ["removed", "fitted", "polarity_board_mark", "polarity_part_mark"] as const;
const replaced = (designator: string, count = 4) =>
  steps.slice(0, count).map((step, n) => tick(designator, step, 10 + n));
const railRead = (value: number | null, sequence: number) =>
  sampleRailReading("net-12", {
    ...{ quantity: "resistance", isPowered: false, loadAmps: null, value, sequence },
    ...(value === null && { coarseCode: "over_range" as const }),
  });
const now = Date.UTC(2026, 10, 23, 12);
const power = (more: Partial<JobFacts>) => {
  const facts = sampleJob(more);
  return firstPower(facts, jobChargeStates(facts, sampleRules.charge, now));
};
/** The sample's 12 V net as the control supply. */
const primary = { nets: [sampleNet({ section: "vcc" })] };
const codes = (more: Partial<JobFacts>) => power(more).shutters.map((one) => one.code);

describe("first power", () => {
  it("is offered where nothing stands against it", () => {
    expect(power({})).toMatchObject({ isShut: false, shutters: [], demands: [], overruledBy: null, record: null });
    expect(power({ symptoms: ["fuse_blown"] })).toMatchObject({ isShut: true, shutters: [] });
  });
  it("waits for a part that is out, for both polarities, and for the rail that was worked on", () => {
    expect(codes({ ...primary, ticks: replaced("C1", 1) })).toEqual(["part_out"]);
    // Without a capacitor on an output it ripples; nothing there needs the fuse.
    expect(codes({ ticks: replaced("C1", 1) })).toEqual([]);
    expect(codes({ ticks: replaced("C1", 2) })).toEqual(["polarity_unseen", "check_missing"]);
    expect(codes({ ticks: replaced("C1", 3) })).toEqual(["polarity_unseen", "check_missing"]);
    expect(codes({ ticks: replaced("C1") })).toEqual(["check_missing"]);
    expect(codes({ ticks: replaced("C1"), readings: [railRead(470, 20)] })).toEqual([]);
    const turned = [samplePart("C1", { stripeDegrees: 270 }), samplePart("C2")];
    expect(codes({ ticks: replaced("C1"), fittedParts: turned, readings: [railRead(470, 20)] })).toEqual([
      "polarity_conflict",
    ]);
    expect(codes({ ...primary, ticks: [...replaced("C1", 1), tick("C1", "removed", 15, false)] })).toEqual([]);
  });
  it("takes a place that is empty on purpose, but never a bulk's", () => {
    const acts = [act("out_for_test", "at-C1", 20)];
    expect(codes({ ...primary, ticks: replaced("C1", 1), acts })).toEqual([]);
    expect(codes({ ...primary, ticks: replaced("C2", 1), acts })).toEqual(["part_out"]);
    for (const section of ["bulk", "pfc"] as const) {
      expect(codes({ ticks: replaced("C1", 1), acts, nets: [sampleNet({ section })] })).toEqual(["part_out"]);
    }
  });
  it("is shut by a power part that reads bad until it is out or reads well", () => {
    const Q1 = (kind: PartKind) => ({ positions: [samplePosition("Q1", { kind, netId: null })], fittedParts: [] });
    const short = sampleReading("Q1", { quantity: "resistance", terminals: "D,S", value: 0.4, circuitState: "out" });
    expect(codes({ ...Q1("transistor"), readings: [short] })).toEqual(["bad_power_part_in"]);
    expect(codes({ ...Q1("transistor"), readings: [short], ticks: replaced("Q1", 1) })).toEqual(["part_out"]);
    const fuse = sampleReading("Q1", { quantity: "resistance", terminals: "1,2", value: 90, circuitState: "out" });
    expect(codes({ ...Q1("fuse"), readings: [fuse] })).toEqual([]);
  });
  it("is shut while a drain hangs on a store", () => {
    const store = { energyStores: [sampleStore({ expectedVolts: 20 })] };
    const drain = { ...sampleCharge("drain_started", 0), sequence: 1 };
    expect(power({ ...store, chargeEvents: [drain] }).shutters).toEqual([
      { code: "drain_on", subjects: ["Bulk C1"], positionIds: [] },
    ]);
    const off = { ...sampleCharge("drain_removed", 1), sequence: 2 };
    expect(codes({ ...store, chargeEvents: [drain, off] })).toEqual([]);
  });
  it("opens on a reason, until something new stands against it", () => {
    const overruled = (sequence: number) => ({ powerEvents: [stored(sequence, samplePower("gate_overruled", 0))] });
    const out = (...ticks: ReworkTick[]) => ({ ...primary, ticks: [...replaced("C1", 1), ...ticks] });
    expect(codes({ ...out(), ...overruled(20) })).toEqual([]);
    expect(power({ ...out(), ...overruled(20) }).overruledBy).not.toBeNull();
    expect(codes({ ...out(tick("C2", "removed", 30)), ...overruled(20) })).toEqual(["part_out"]);
    expect(codes({ ...out(), ...overruled(5) })).toEqual(["part_out"]);
  });
});

describe("the mains, connected against what stood there", () => {
  const connected = (sequence: number) => ({ ...sampleCharge("mains_connected", sequence), sequence });
  const against = (more: Partial<JobFacts>) =>
    connectedAgainstGate(sampleJob(more), sampleRules.charge).map((one) => one.sequence);
  it("is told by what stood there at that moment, not by what was mended since", () => {
    const facts = { ...primary, ticks: [...replaced("C1", 1), tick("C1", "removed", 25, false)] };
    const chargeEvents = [
      connected(5),
      connected(20),
      connected(30),
      { ...sampleCharge("mains_disconnected", 1), sequence: 22 },
    ];
    expect(against({ ...facts, chargeEvents })).toEqual([20]);
    expect(codes({ ...facts, chargeEvents })).toEqual([]);
  });
  it("is told behind a blown fuse, and not after a reason was given", () => {
    const blown = { symptoms: ["fuse_blown"] as const };
    const reason = { powerEvents: [stored(10, samplePower("gate_overruled", 0))] };
    expect(against({ ...blown, ...reason, chargeEvents: [connected(5), connected(20)] })).toEqual([5]);
  });
});

describe("a sheet or an earth screw that is out", () => {
  const step = (kind: "sheet" | "earth_screws" | "screws", number: number) => ({ id: kind, number, kind, count: 2 });
  const out = { teardownSteps: [step("sheet", 1), step("earth_screws", 2), step("screws", 3)] };
  const told = [act("board_insulated", null, 20)];
  it("shuts first power, and screws that hold nothing else do not", () => {
    expect(power(out).shutters[0]).toMatchObject({
      code: "sheet_or_earth_out",
      subjects: ["earth_screws:2", "sheet:2"],
    });
    expect(codes({ teardownSteps: [step("screws", 1)] })).toEqual([]);
    const back = ["sheet", "earth_screws"].map((stepId) => ({ stepId, countIn: 2, sequence: 5, at }));
    expect(codes({ ...out, teardownReturns: back })).toEqual([]);
  });
  it("is allowed for one power-up where the board is said to lie insulated, and by no overrule", () => {
    expect(codes({ ...out, acts: told })).toEqual([]);
    const off = (sequence: number) => ({ chargeEvents: [{ ...sampleCharge("mains_disconnected", 0), sequence }] });
    expect(codes({ ...out, acts: told, ...off(15) })).toEqual([]);
    expect(codes({ ...out, acts: told, ...off(25) })).toEqual(["sheet_or_earth_out"]);
    const overruled = { powerEvents: [stored(30, samplePower("gate_overruled", 0))] };
    expect(codes({ ...out, ...overruled })).toEqual(["sheet_or_earth_out"]);
  });
});

describe("the cold checks that work asks for", () => {
  const open = (more: Partial<JobFacts>) =>
    power(more)
      .demands.filter((one) => one.state !== "passed")
      .map((one) => `${one.item} ${one.designator ?? ""}`.trim());
  const ticks = replaced("C1");
  it("on an output are its rail, by a reading since or by a check", () => {
    expect(open({ ticks })).toEqual(["rail 12 V"]);
    expect(open({ ticks, readings: [railRead(null, 20)] })).toEqual([]);
    expect(open({ ticks, readings: [railRead(10, 20)] })).toEqual([]);
    expect(open({ ticks, readings: [railRead(9.9, 20)] })).toEqual(["rail 12 V"]);
    expect(open({ ticks, readings: [railRead(470, 5)] })).toEqual(["rail 12 V"]);
    const onPart = sampleReading("C2", { quantity: "resistance", value: 470, sequence: 20 });
    expect(open({ ticks, readings: [onPart] })).toEqual([]);
    const ticked = (hasShort: boolean, sequence = 20) => ({
      powerEvents: [
        stored(sequence, samplePower("gate_check", 0, { item: "rail", subjectId: "net-12", values: [3], hasShort })),
      ],
    });
    expect(open({ ticks, ...ticked(false) })).toEqual([]);
    expect(open({ ticks, ...ticked(true) })).toEqual(["rail 12 V"]);
    expect(open({ ticks, ...ticked(false, 5) })).toEqual(["rail 12 V"]);
  });
  it("are over once the unit ran since the work", () => {
    const run = (sequence: number) => sampleRailReading("net-12", { value: 12, sequence });
    expect(open({ ticks, readings: [run(20)] })).toEqual([]);
    expect(open({ ticks, readings: [run(5)] })).toEqual(["rail 12 V"]);
  });
  it("after a power part are its own path, the bridge and its insulation; after a bulk none", () => {
    const on = (kind: PartKind, section: "bulk" | "output") => ({
      nets: [sampleNet({ section, name: "rail" })],
      positions: [samplePosition("C1", { kind })],
      fittedParts: [],
      ticks,
    });
    expect(open(on("transistor", "bulk"))).toEqual(["transistor C1", "bridge", "sink C1"]);
    expect(open(on("bridge", "bulk"))).toEqual(["bridge C1", "sink C1"]);
    expect(open(on("diode", "output"))).toEqual(["rail rail", "sink C1"]);
    expect(open(on("electrolytic", "bulk"))).toEqual([]);
    expect(open({ ticks: [...ticks, tick("C1", "fitted", 30, false)] })).toEqual([]);
  });
});

describe("the record of a first power-up", () => {
  const record = (sequence: number) => stored(sequence, samplePower("first_power", 0, { sign: "flash_then_dim" }));
  it("stands until a part goes in or out again", () => {
    expect(power({ powerEvents: [record(5)] }).record?.sign).toBe("flash_then_dim");
    expect(power({ powerEvents: [record(5)], ticks: replaced("C1") }).record).toBeNull();
    expect(power({ powerEvents: [record(20)], ticks: replaced("C1") }).record).not.toBeNull();
    // A polarity that was looked at changes nothing in the unit.
    expect(power({ powerEvents: [record(12)], ticks: replaced("C1") }).record).not.toBeNull();
  });
});
