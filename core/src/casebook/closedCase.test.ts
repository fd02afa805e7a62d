import { describe, expect, it } from "vitest";
import { sampleJob, sampleMoment, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing";
import type { JobAct } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import { type ClosedCase, closedCase, partSubjects } from "./closedCase";

const closedAs = (word: string): JobAct => ({
  ...{ kind: "outcome", subjectId: null, word, note: null, ...sampleMoment, sequence: 90 },
  at: "2026-11-23T12:00:00Z",
});

/** An output pair and a transistor: C1 read off the board, C2 in circuit, Q1 across its pins. */
function unit(more: Partial<JobFacts> = {}): JobFacts {
  return sampleJob({
    positions: [samplePosition("C1"), samplePosition("C2"), samplePosition("Q1", { kind: "transistor", netId: null })],
    fittedParts: [samplePart("C1", { series: "Midge HK" }), samplePart("C2", { series: null })],
    acts: [closedAs("repaired")],
    readings: [
      sampleReading("C1", { value: 0.9, circuitState: "out" }),
      sampleReading("C2", { value: 0.03, circuitState: "in_circuit" }),
    ],
    ...more,
  });
}
const part = (one: ClosedCase, at: string) => one.parts.find((found) => found.designator === at);
const of = (facts: JobFacts, hasReturned = false) => closedCase(facts, sampleRules, hasReturned);

describe("a closed job as the casebook keeps it", () => {
  it("shows a part by its own number off the board, and one that was left in a working unit as sound", () => {
    const closed = of(unit());
    expect(part(closed, "C1")).toMatchObject({ shown: "failed", shownBy: "own_reading", series: "Midge HK" });
    expect(part(closed, "C2")).toMatchObject({ shown: "sound", shownBy: "left_in" });
    expect(
      of(unit({ readings: [sampleReading("C1", { value: null, coarseCode: "over_range", circuitState: "out" })] }))
        .parts,
    ).toContainEqual(expect.objectContaining({ designator: "C1", shown: "failed", shownBy: "own_reading" }));
  });

  it("shows by capacitance alone, and not by a number read under power or in circuit", () => {
    const farads = (value: number) => sampleReading("C1", { quantity: "capacitance", value, circuitState: "out" });
    const marked = samplePart("C1").capacitanceFarads as number;
    expect(part(of(unit({ readings: [farads(0.4 * marked)] })), "C1")).toMatchObject({ shown: "failed" });
    expect(part(of(unit({ readings: [farads(0.98 * marked)] })), "C1")).toMatchObject({
      shown: "sound",
      shownBy: "own_reading",
    });
    const inCircuit = [sampleReading("C1", { value: 0.03, circuitState: "in_circuit" })];
    expect(part(of(unit({ readings: inCircuit })), "C1")?.shownBy).not.toBe("own_reading");
  });

  it("leaves open what nothing settled where the unit never worked, or came back with the same fault", () => {
    const facts = unit({ acts: [closedAs("scrapped")] });
    expect(part(of(facts), "C2")).toMatchObject({ shown: "unknown", shownBy: null });
    expect(part(of(unit(), true), "C2")).toMatchObject({ shown: "unknown", shownBy: null });
    expect(of(facts).outcome).toBe("scrapped");
    expect(partSubjects(part(of(facts), "C2") as never, 4)).toBeNull();
  });

  it("counts a cause where its own surest test found it in a unit that was repaired by it, and only there", () => {
    const told = unit({ symptoms: ["repeated_attempts"] });
    const closed = of(told);
    expect(closed.causes).toEqual(["output_capacitors_dried"]);
    const tallies = closed.tallies.filter((one) => one.kind === "prior");
    expect(tallies).toEqual([
      { kind: "prior", fault: "*", other: null, isSeen: false },
      { kind: "prior", fault: "output_capacitors_dried", other: null, isSeen: true },
    ]);
    expect(of(unit({ ...told, acts: [closedAs("declined")] })).causes).toEqual([]);
    expect(of(told, true)).toMatchObject({ causes: [], tallies: [] });
  });

  it("counts a complaint that was not made as not seen, a test that nobody did for nothing", () => {
    const { tallies } = of(unit({ symptoms: ["repeated_attempts"] }));
    const shows = (other: string) => tallies.find((one) => one.kind === "shows" && one.other === other)?.isSeen;
    expect(shows("repeated_attempts")).toBe(true);
    expect(shows("whine")).toBe(false);
    expect(shows("output_capacitor_bad")).toBe(true);
    expect(shows("ripple_switching_measured")).toBeUndefined();
    expect(tallies.some((one) => one.kind === "causes")).toBe(false);
    const shorted = sampleReading("Q1", {
      quantity: "resistance",
      value: 0.3,
      terminals: "D,S",
      frequencyHertz: null,
      fittedPartId: null,
    });
    const both = of(unit({ symptoms: ["dead"], readings: [...unit().readings, shorted] }));
    expect(both.causes).toEqual(expect.arrayContaining(["output_capacitors_dried", "switch_shorted"]));
    expect(both.tallies).toContainEqual({
      ...{ kind: "causes", fault: "output_capacitors_dried", other: "switch_shorted", isSeen: true },
    });
    // What the transistor brings about as well tells nothing of the outputs.
    expect(both.tallies.some((one) => one.fault === "output_capacitors_dried" && one.other === "dead")).toBe(false);
  });

  it("keeps what the board told in circuit as a forecast, and only where the part's own number came after", () => {
    const both = [
      sampleReading("C1", { value: 0.4, circuitState: "in_circuit" }),
      sampleReading("C1", { value: 0.9, circuitState: "out" }),
    ];
    const told = part(of(unit({ readings: both })), "C1");
    expect(told?.saidProbability).toBeGreaterThan(0);
    expect(told?.saidProbability).toBeLessThan(1);
    expect(part(of(unit()), "C1")?.saidProbability).toBeNull();
    expect(part(of(unit()), "C2")?.saidProbability).toBeNull();
  });

  it("is judged by its own readings alone: the record cannot be its own witness", () => {
    const record = {
      ...{ fewestCount: 1, defaultWeight: 1, ageBand: null, scopes: { topology: null, model: null }, faults: [] },
      parts: [{ level: "place" as const, subject: "C2", failedCount: 90, seenCount: 100 }],
    };
    expect(of(unit({ record }))).toEqual(of(unit()));
  });

  it("files a part under its place, its series and its age", () => {
    const found = { ...(part(of(unit()), "C1") as NonNullable<ReturnType<typeof part>>), section: "output" as const };
    expect(partSubjects(found, 7)).toEqual({
      place: "C1",
      series: "midge hk|output",
      series_age: "midge hk|output|to_10",
      maker: null,
    });
    expect(partSubjects({ ...found, series: null }, null)).toEqual({
      place: "C1",
      series: null,
      series_age: null,
      maker: null,
    });
  });
});
