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
import type { JobAct, JobActKind } from "../facts/jobActs";
import type { JobFacts, ReworkStep, ReworkTick } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { openPoints } from "./openPoints";

const now = Date.parse("2026-11-23T12:00:00Z");
const at = "2026-11-23T11:00:00Z";
const tick = (designator: string, step: ReworkStep, sequence: number): ReworkTick => ({
  ...{ positionId: `at-${designator}`, step, isDone: true, ...sampleMoment, sequence, at },
});
const act = (kind: JobActKind, word: string | null, subjectId: string | null = null): JobAct => ({
  ...{ kind, subjectId, word, note: null, ...sampleMoment, sequence: 90, at },
});
const codes = (more: Partial<JobFacts>, rules: JobRules = sampleRules) =>
  openPoints(sampleJob(more), rules, now).map((point) => point.code);
const has = (more: Partial<JobFacts>, rules?: JobRules) => (code: string) => codes(more, rules).includes(code as never);
const rail = (sequence: number, more: Parameters<typeof sampleRailReading>[1]) =>
  sampleRailReading("net-12", { sequence, ...more });
const proved = [
  rail(50, { value: 12.1 }),
  rail(51, { value: 11.9, loadAmps: 4 }),
  rail(52, { quantity: "ripple_voltage", value: 0.03, loadAmps: 4 }),
];
/** C1 replaced and seen twice; its new part was read. */
const replaced: Partial<JobFacts> = {
  fittedParts: [
    samplePart("C1", { removedAt: at }),
    samplePart("C1", { id: "new-C1", origin: "replacement" }),
    samplePart("C2"),
  ],
  ticks: (["removed", "fitted", "polarity_board_mark", "polarity_part_mark"] as const).map((step, n) =>
    tick("C1", step, 10 + n),
  ),
};
const fresh = sampleReading("C1", { fittedPartId: "new-C1", value: 0.03, sequence: 20 });
const bad = sampleReading("C1", { value: 0.6, sequence: 1 });
const C2 = sampleReading("C2", { value: 0.034, sequence: 2 });

describe("a job without any promise", () => {
  const nets = [sampleNet({ fullLoadAmps: null })];
  it("is open where nothing was measured, nothing was powered and an output was never read", () => {
    expect(codes({ nets })).toEqual(["output_not_read", "nothing_measured", "never_powered"]);
    expect(codes({ nets, readings: [rail(1, { value: 12 })] })).toEqual([]);
  });
  it("asks no bulk, no feedback and no empty net for a reading, and a choke's two sides once", () => {
    const asked = (net: Parameters<typeof sampleNet>[0], more: Partial<JobFacts> = {}) =>
      codes({ nets: [sampleNet({ fullLoadAmps: null, ...net })], ...more }).filter((one) => one === "output_not_read");
    expect(asked({ section: "bulk" })).toEqual([]);
    expect(asked({ section: "feedback" })).toEqual([]);
    expect(asked({}, { positions: [] })).toEqual([]);
    const after = sampleNet({
      ...{ id: "net-post", section: "output-post", fullLoadAmps: null },
      network: { arrangement: "parallel", behindNetId: "net-12", chokeHenrys: null, chokeOhms: null },
    });
    const both = {
      nets: [...nets, after],
      positions: [samplePosition("C1"), samplePosition("C2", { netId: "net-post" })],
    };
    expect(codes(both).filter((one) => one === "output_not_read")).toHaveLength(2);
    expect(codes({ ...both, readings: [rail(1, { value: 12 })] })).not.toContain("output_not_read");
  });
  it("was never powered where the last part went in after the last reading", () => {
    const readings = [fresh, rail(5, { value: 12 })];
    expect(codes({ nets, ...replaced, readings })).toContain("never_powered");
    expect(codes({ nets, ...replaced, readings: [fresh, rail(30, { value: 12 })] })).not.toContain("never_powered");
  });
});

describe("a mains connection", () => {
  it("against a shut gate stays open after the gate was opened", () => {
    const shut = { symptoms: ["fuse_blown"] as const, readings: proved };
    const connected = { ...sampleCharge("mains_connected", 1), sequence: 5 };
    expect(has({ ...shut, chargeEvents: [connected] })("powered_against_gate")).toBe(true);
    const powerEvents = [{ ...samplePower("gate_overruled", 2), sequence: 6 }];
    const opened = { ...shut, powerEvents, chargeEvents: [connected] };
    expect([has(opened)("powered_against_gate"), has(opened)("power_gate_shut")]).toEqual([true, false]);
    expect(has({ readings: proved, chargeEvents: [connected] })("powered_against_gate")).toBe(false);
  });
});

describe("a promised rail", () => {
  it("wants its load and its ripple, and no more once it has them", () => {
    expect(codes({ readings: [fresh] })).toEqual(["rail_not_loaded", "ripple_not_measured", "never_powered"]);
    expect(codes({ readings: proved })).toEqual([]);
  });
  it("at 1 % of its load stays open", () => {
    const part = [rail(50, { value: 12.1, loadAmps: 0.04 }), ...proved.slice(2)];
    expect(codes({ readings: part })).toEqual(["rail_part_load"]);
  });
  it("that reads wrong is open once, by the worst of it", () => {
    expect(codes({ readings: [...proved, rail(60, { value: 9, loadAmps: 4 })] })).toEqual(["rail_outside_limits"]);
    expect(codes({ readings: [...proved, rail(60, { value: -12 })] })).toEqual(["rail_wrong_sign"]);
    const good = [rail(40, { value: 9, loadAmps: 4 }), ...proved];
    expect(codes({ readings: good })).toEqual(["rail_unexplained"]);
    const told = [act("retest_explained", "probe", "net-12")];
    expect(codes({ readings: good, acts: told.map((one) => ({ ...one, sequence: 45 })) })).toEqual([]);
    expect(codes({ readings: [...proved, rail(60, { quantity: "ripple_voltage", value: 0.9, loadAmps: 4 })] })).toEqual(
      ["ripple_above_limit"],
    );
  });
  it("proves nothing by what was read before the repair", () => {
    const early = proved.map((reading, n) => ({ ...reading, sequence: n + 1 }));
    expect(codes({ ...replaced, readings: [fresh, ...early] })).toEqual(
      expect.arrayContaining(["rail_not_loaded", "ripple_not_measured", "never_powered"]),
    );
  });
});

describe("a part", () => {
  it("that reads bad is open until it is out, and its place until something is in", () => {
    const readings = [bad, C2, ...proved];
    expect(codes({ readings })).toEqual(["part_not_replaced"]);
    expect(codes({ readings, ticks: [tick("C1", "removed", 10)] })).toContain("part_not_refitted");
    expect(has({ ...replaced, readings: [...readings, fresh] })("part_not_replaced")).toBe(false);
  });
  it("that is new is open where it reads bad, and by the house rule where nobody read it", () => {
    const closed = { ...replaced, readings: [C2, fresh, ...proved] };
    expect(codes(closed)).toEqual([]);
    expect(codes({ ...closed, readings: [C2, { ...fresh, value: 0.6 }, ...proved] })).toEqual(["new_part_bad"]);
    expect(codes({ ...closed, readings: [C2, ...proved] })).toEqual(["new_part_not_read"]);
    const lenient = { ...sampleRules, rail: { ...sampleRules.rail, mustReadNewParts: false } };
    expect(codes({ ...closed, readings: [C2, ...proved] }, lenient)).toEqual([]);
    // A voltage at its pins is no reading of the part.
    const volts = { ...fresh, quantity: "dc_voltage", value: 0.1 } as const;
    expect(codes({ ...closed, readings: [C2, volts, ...proved] })).toEqual(["new_part_not_read"]);
  });
  it("beside one that failed is open while nobody read it", () => {
    expect(codes({ readings: [bad, ...proved] })).toEqual(["part_not_replaced", "neighbour_not_read"]);
    const other = [samplePosition("C1"), samplePosition("C2", { netId: "net-5" })];
    expect(codes({ readings: [bad, ...proved], positions: other })).toEqual(["part_not_replaced"]);
  });
});

describe("polarity", () => {
  const readings = [C2, fresh, ...proved];
  const of = (more: Partial<JobFacts>) =>
    codes({ ...replaced, readings, ...more }).filter((code) => code.startsWith("polarity"));
  it("stands on two records that were seen and agree", () => {
    expect(of({})).toEqual([]);
    expect(of({ ticks: replaced.ticks?.slice(0, 3) })).toEqual(["polarity_unconfirmed"]);
    const turned = [
      samplePart("C1", { removedAt: at }),
      samplePart("C1", { id: "new-C1", origin: "replacement", stripeDegrees: 270 }),
    ];
    expect(of({ fittedParts: turned })).toEqual(["polarity_conflict"]);
  });
  it("is open with a record that is missing, whatever was ticked", () => {
    const unmarked = [samplePosition("C1", { boardNegativeDegrees: null }), samplePosition("C2")];
    expect(of({ positions: unmarked })).toEqual(["polarity_not_recorded"]);
    expect(of({ positions: unmarked, acts: [act("polarity_seen", "photo", "at-C1")] })).toEqual([]);
    expect(of({ positions: unmarked, acts: [act("polarity_seen", "photo", "at-C2")] })).toEqual([
      "polarity_not_recorded",
    ]);
    const bare = [
      samplePart("C1", { removedAt: at }),
      samplePart("C1", { id: "new-C1", origin: "replacement", stripeDegrees: null }),
    ];
    expect(of({ fittedParts: bare })).toEqual(["polarity_not_recorded"]);
  });
  it("is asked of no part that has none", () => {
    const nonPolar = [
      samplePart("C1", { removedAt: at }),
      samplePart("C1", { id: "new-C1", origin: "replacement", stripeDegrees: null, isNonPolar: true }),
    ];
    expect(of({ fittedParts: nonPolar, ticks: replaced.ticks?.slice(0, 2) })).toEqual([]);
  });
});

describe("the supply that was blamed", () => {
  it("is a point where nothing told that it is the supply at all", () => {
    const asked = (more: Partial<JobFacts>) => codes({ readings: [bad, C2], ...more }).includes("supply_not_checked");
    expect(asked({})).toBe(true);
    expect(asked({ isSupplyChecked: true })).toBe(false);
    expect(asked({ readings: [bad, C2, rail(1, { value: 9 })] })).toBe(false);
    expect(asked({ readings: [C2] })).toBe(false);
    expect(asked({ readings: [C2], ticks: [tick("C1", "removed", 3)] })).toBe(true);
    // An adapter is the supply.
    expect(asked({ device: { kind: "adapter", topology: null, ageYears: null } })).toBe(false);
  });
});

describe("a bulk that nobody named", () => {
  const bulk = {
    nets: [sampleNet({ section: "bulk", nominalVolts: 325, fullLoadAmps: null })],
    positions: [samplePosition("C1"), samplePosition("C2")],
  };
  it("is a point after work on the mains side, by its name", () => {
    const named = (more: Partial<JobFacts>) =>
      openPoints(sampleJob({ ...bulk, ...more }), sampleRules, now).find((one) => one.code === "bulk_not_named")
        ?.subject;
    expect(named({})).toBeUndefined();
    expect(named({ ...replaced })).toBe("C1, C2");
    expect(named({ ...replaced, energyStores: [sampleStore()] })).toBeUndefined();
  });
});

describe("a unit that is not repaired", () => {
  it("is asked for its charge and its earth alone", () => {
    const job = {
      readings: [bad, rail(5, { value: 9, loadAmps: 4 })],
      teardownSteps: [
        { id: "s1", number: 1, kind: "earth_screws" as const, count: 2 },
        { id: "s2", number: 2, kind: "sheet" as const, count: 1 },
      ],
    };
    for (const outcome of ["not_repaired", "declined", "scrapped", "no_fault_found"]) {
      expect(codes({ ...job, acts: [act("outcome", outcome)] })).toEqual([
        "charge_not_verified",
        "earth_screws_missing",
      ]);
    }
    expect(codes({ ...job, acts: [act("outcome", "repaired")] }).length).toBeGreaterThan(4);
    // A unit in which nothing can hold charge, and that was never powered here, is asked for none.
    expect(codes({ acts: [act("outcome", "declined")] })).toEqual([]);
  });
});

describe("a protective earth", () => {
  const steps = [
    { id: "earth", number: 1, kind: "earth_screws" as const, count: 2 },
    { id: "lid", number: 2, kind: "screws" as const, count: 4 },
  ];
  const back = (stepId: string, countIn: number, sequence: number) => ({ stepId, countIn, sequence, at });
  const bond = (ohms: number | "open", sequence: number) => ({
    ...samplePower("gate_check", 0, { item: "earth_bond", values: [ohms], hasShort: false }),
    sequence,
  });
  const isOpen = (more: Partial<JobFacts>) => codes({ teardownSteps: steps, ...more }).includes("earth_screws_missing");
  it("closes by its screws", () => {
    expect(isOpen({})).toBe(true);
    expect(isOpen({ teardownReturns: [back("earth", 1, 1)] })).toBe(true);
    expect(isOpen({ teardownReturns: [back("earth", 2, 1)] })).toBe(false);
  });
  it("closes by a bond within its limit on the closed case, measured after it was closed", () => {
    const closed = [back("lid", 4, 1)];
    expect(isOpen({ teardownReturns: closed, powerEvents: [bond(0.3, 2)] })).toBe(false);
    expect(isOpen({ teardownReturns: closed, powerEvents: [bond(0.31, 2)] })).toBe(true);
    expect(isOpen({ teardownReturns: closed, powerEvents: [bond("open", 2)] })).toBe(true);
    expect(isOpen({ teardownReturns: closed, powerEvents: [bond(0.1, 2), bond(0.9, 3)] })).toBe(true);
    expect(isOpen({ teardownReturns: closed, powerEvents: [bond(0.1, 0)] })).toBe(true);
    expect(isOpen({ teardownReturns: [back("lid", 3, 1)], powerEvents: [bond(0.1, 2)] })).toBe(true);
    const strict = { ...sampleRules, safety: { ...sampleRules.safety, earthBondOhms: 0.2 } };
    const facts = sampleJob({ teardownSteps: steps, teardownReturns: closed, powerEvents: [bond(0.3, 2)] });
    expect(openPoints(facts, strict, now).map((one) => one.code)).toContain("earth_screws_missing");
  });
});
