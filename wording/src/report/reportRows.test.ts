import { foldHouseRules, jobFacts, jobRules } from "@pale-cap/contract";
import { type SampleDetail, sampleDetail } from "@pale-cap/contract/testing";
import { judgeBoard, judgeDevices } from "@pale-cap/core";
import { samplePart, samplePosition, sampleReading } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { deviceRows, reportRows } from "./reportRows";

function rowsOf(more: SampleDetail) {
  const detail = sampleDetail(more);
  const facts = jobFacts(detail);
  return reportRows(detail, facts, judgeBoard(facts, jobRules(foldHouseRules([])).judgement));
}
const sign = (state: "seen" | "not_seen", sequence: number) => ({
  ...{ fittedPartId: "part-C1", sign: "domed" as const, state, sequence, observedAt: "2026-11-23T10:00:00Z" },
});

describe("reportRows", () => {
  it("names what was measured, seen or replaced, and nothing that nobody looked at", () => {
    expect(rowsOf({})).toEqual([]);
    const rows = rowsOf({ readings: [sampleReading("C1", { value: 0.6 })] });
    expect(rows.map((row) => [row.designator, row.verdict, row.isReplaced])).toEqual([["C1", "failed", false]]);
    expect(rows[0]).toMatchObject({ rail: "12 V", farads: 1e-3, volts: 16, overruled: null });
    expect(rowsOf({ signs: [sign("seen", 1)] })[0]?.seen).toEqual(["domed"]);
    // A later look decides.
    expect(rowsOf({ readings: [sampleReading("C1")], signs: [sign("seen", 1), sign("not_seen", 2)] })[0]?.seen).toEqual(
      [],
    );
  });

  it("holds readings of the old part apart from those of the new one, out of circuit before in circuit", () => {
    const fresh = { fittedPartId: "fresh" };
    const rows = rowsOf({
      positions: [samplePosition("C1", { netId: null })],
      fittedParts: [
        samplePart("C1", { removedAt: "2026-11-23T11:00:00Z" }),
        samplePart("C1", { id: "fresh", origin: "replacement" }),
      ],
      readings: [
        sampleReading("C1", { value: 0.2, circuitState: "in_circuit" }),
        sampleReading("C1", { value: 0.6 }),
        sampleReading("C1", { value: 0.62 }),
        sampleReading("C1", { value: 9, isWithdrawn: true }),
        sampleReading("C1", { quantity: "capacitance", value: 4e-4 }),
        sampleReading("C1", { ...fresh, value: 0.03, circuitState: "in_circuit" }),
      ],
    });
    expect(rows).toHaveLength(1);
    expect(rows[0]).toMatchObject({ rail: "–", isReplaced: true, after: { esr: 0.03, capacitance: null } });
    expect(rows[0]?.before.esr).toBeCloseTo(0.61, 12);
    expect(rows[0]?.before.capacitance).toBe(4e-4);
  });

  it("prints what a coarse tester said where that is the only evidence, and what was noted", () => {
    const band = sampleReading("C1", { quantity: "tester_band", value: null, coarseCode: "band_bad" });
    const noted = { ...samplePosition("C1"), note: "dented" };
    const [row] = rowsOf({ readings: [band], positions: [noted] });
    expect([row?.before.band, row?.before.esr, row?.after.band, row?.note]).toEqual(["band_bad", null, null, "dented"]);
  });

  it("says what the readings came to where a person decided otherwise", () => {
    const overrules = [
      {
        fittedPartId: "part-C1",
        verdict: "sound" as const,
        reason: "swapped probes",
        sequence: 9,
        at: "2026-11-23T11:00:00Z",
      },
    ];
    const [row] = rowsOf({ readings: [sampleReading("C1", { value: 0.6 })], overrules });
    expect(row).toMatchObject({ verdict: "sound", overruled: { computed: "failed", reason: "swapped probes" } });
  });
});

describe("deviceRows", () => {
  it("names what was tested, seen or noted of other parts, and nothing of the rest", () => {
    const positions = ["Q1", "F1", "L1"].map((name) =>
      samplePosition(name, { kind: name === "F1" ? "fuse" : "choke" }),
    );
    const reading = sampleReading("F1", { quantity: "resistance", value: null, coarseCode: "over_range" });
    const seen = {
      ...{ fittedPartId: null, positionId: "at-Q1", sign: "cracked_joint" as const, state: "seen" as const },
      ...{ sequence: 1, observedAt: "2026-11-23T09:00:00Z" },
    };
    const detail = sampleDetail({ positions, readings: [reading], signs: [seen] });
    const rows = deviceRows(detail, judgeDevices(jobFacts(detail)));
    expect(rows.map((row) => [row.designator, row.verdict, row.seen, row.lines.length])).toEqual([
      ["F1", "failed", [], 1],
      ["Q1", null, ["cracked_joint"], 0],
    ]);
    expect(rows.map((row) => row.after)).toEqual([null, null]);
  });
  it("keeps what was found of a part that was replaced, and says what the new one reads", () => {
    const positions = ["F1", "L1"].map((name) => samplePosition(name, { kind: name === "F1" ? "fuse" : "choke" }));
    const fittedParts = ["F1", "L1"].map((name) => samplePart(name, { id: `new-${name}`, origin: "replacement" }));
    const detail = sampleDetail({ positions, fittedParts });
    const judged = (verdict: "failed" | "sound" | "not_measured") =>
      new Map([["at-F1", { positionId: "at-F1", verdict, lines: [], seen: [], traps: [] }]]);
    const after = (verdict: "sound" | "not_measured") =>
      deviceRows(detail, judged("failed"), judged(verdict)).map((row) => [row.designator, row.verdict, row.after]);
    expect(after("sound")).toEqual([
      ["F1", "failed", "sound"],
      ["L1", null, undefined],
    ]);
    expect(after("not_measured")[0]).toEqual(["F1", "failed", undefined]);
  });
});
