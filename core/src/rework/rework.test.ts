import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition } from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { JobAct, JobActKind } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import { boardDamages } from "./boardDamage";
import { bridgingWire, traceAmps, traceWidthMetres, wireAmps } from "./bridging";
import { heatAdvice, usualLeadMetres } from "./heatAdvice";
import { reworkOrder } from "./reworkOrder";
import { workChecks } from "./workChecks";

let count = 0;
const act = (kind: JobActKind, subject: string | null, more: Partial<JobAct> = {}): JobAct => {
  count += 1;
  const at = new Date(Date.UTC(2026, 11, 1, 10, 0, count)).toISOString();
  return {
    ...{ ...sampleMoment, id: `act-${count}`, sequence: count, at, kind, subjectId: subject && `at-${subject}` },
    ...{ word: null, note: null },
    ...more,
  };
};
const tick = (subject: string, step: "removed" | "fitted") => {
  count += 1;
  const at = new Date(Date.UTC(2026, 11, 1, 10, 0, count)).toISOString();
  return { ...sampleMoment, sequence: count, at, positionId: `at-${subject}`, step, isDone: true };
};

describe("the heat for a joint", () => {
  it("grows with the copper beneath it, and stays short", () => {
    expect(heatAdvice("none", "leaded", 0.6e-3, null)).toEqual({
      ...{ tipCelsius: [330, 350], tipMetres: [2e-3, 2e-3], mostSeconds: 3, preheatCelsius: null, help: [] },
    });
    expect(heatAdvice("none", "lead_free", 0.6e-3, 5e-3)).toMatchObject({
      tipCelsius: [360, 380],
      help: ["both_legs"],
    });
    expect(heatAdvice("one_side", "leaded", 0.6e-3, 6e-3)).toMatchObject({
      ...{ tipCelsius: [380, 380], tipMetres: [3e-3, 4e-3], mostSeconds: 5, help: ["leaded_solder"] },
    });
    expect(heatAdvice("both_sides", "leaded", 1.6e-3, 7.5e-3)).toEqual({
      ...{ tipCelsius: [400, 400], tipMetres: [5e-3, 5e-3], mostSeconds: 10, preheatCelsius: [100, 120] },
      help: ["preheat", "low_melt_then_clear", "two_irons", "rock"],
    });
  });
  it("knows thick leads by the part", () => {
    expect([5, 8, 16, 22].map((mm) => usualLeadMetres("electrolytic", mm / 1e3) * 1e3)).toEqual([0.5, 0.6, 0.8, 1.6]);
    expect(usualLeadMetres("electrolytic", null)).toBe(0.6e-3);
    expect(usualLeadMetres("bridge", null)).toBe(1.3e-3);
    expect(usualLeadMetres("resistor", null)).toBe(0.6e-3);
  });
});

describe("a bridge over broken copper", () => {
  it("carries the rail's current by wire or by trace", () => {
    expect([2.5, 2.6, 5, 8].map(bridgingWire)).toEqual([0.25e-6, 0.5e-6, 0.5e-6, 1e-6]);
    expect(bridgingWire(8.1)).toBeNull();
    expect([wireAmps(0.2e-6), wireAmps(0.5e-6), wireAmps(2e-6)]).toEqual([null, 5, 8]);
    // 2 mm of 35 um copper, 10 K: 3.95 A.
    expect(traceAmps(2e-3)).toBeCloseTo(3.95, 2);
    expect(traceWidthMetres(traceAmps(3.3e-3, 20), 20)).toBeCloseTo(3.3e-3, 12);
    expect(() => bridgingWire(0)).toThrow();
    expect(() => traceAmps(1e-3, 200)).toThrow();
  });
});

describe("damage", () => {
  it("is open until it is bridged and its continuity reads low", () => {
    const acts = [act("damage", "C1", { word: "pad", note: "plus" })];
    const state = () => boardDamages(acts).map((one) => one.state);
    expect(state()).toEqual(["open"]);
    acts.push(act("mend_read", "C1", { value: 0.01 }));
    expect(state()).toEqual(["open"]);
    acts.push(act("mended", "C1", { word: "wire", value: 0.5e-6 }));
    expect(state()).toEqual(["not_shown"]);
    acts.push(act("mend_read", "C1", { value: 0.051 }));
    expect(state()).toEqual(["high"]);
    acts.push(act("mend_read", "C1", { value: 0.05 }));
    expect(boardDamages(acts)).toMatchObject([
      { positionId: "at-C1", kind: "pad", note: "plus", way: "wire", size: 0.5e-6, ohms: 0.05, state: "shown" },
    ]);
    acts.push(act("mended", "C1", { word: "eyelet" }));
    expect(boardDamages(acts)).toMatchObject([{ way: "eyelet", ohms: null, state: "not_shown" }]);
  });
  it("keeps its photo, and two at one place apart", () => {
    const acts = [
      act("damage", "C1", { word: "via" }),
      act("damage", "C1", { word: "via", photoId: "shot" }),
      act("damage", "C2", { word: "trace" }),
      act("damage", "C1", { word: "trace" }),
      act("mended", "C1", { word: "trace_foil", value: 2e-3 }),
    ];
    expect(boardDamages(acts).map((one) => [one.positionId, one.kind, one.photoId, one.state])).toEqual([
      ["at-C1", "via", "shot", "open"],
      ["at-C2", "trace", null, "open"],
      ["at-C1", "trace", null, "not_shown"],
    ]);
  });
});

describe("what the work asks for", () => {
  const sink = samplePosition("HS1", { kind: "heat-sink", xMetres: 0.05, yMetres: 0.05, outlineWidthMetres: 0.02 });
  const at = (x: number) => samplePosition("Q1", { kind: "transistor", xMetres: x, yMetres: 0.05 });
  const checks = (facts: Partial<JobFacts>) =>
    new Map(workChecks({ ...sampleJob(), signs: [], acts: [], ticks: [], ...facts }).map((one) => [one.kind, one]));
  it("is nothing before anything was touched or seen", () => {
    expect(checks({}).size).toBe(0);
  });
  it("is insulator, paste, screw and a reading only where a transistor stands at a sink", () => {
    const ticks = [tick("Q1", "removed"), tick("Q1", "fitted")];
    expect([...checks({ ticks, positions: [at(0.06), sink] }).keys()]).toEqual([
      ...["joints_seen", "leads_trimmed", "insulator_in", "paste_on", "screw_tight", "sink_insulation"],
    ]);
    expect([...checks({ ticks, positions: [at(0.08), sink] }).keys()]).toEqual(["joints_seen", "leads_trimmed"]);
    expect(checks({ ticks, positions: [{ ...at(0.08), heatSource: "sink" }] }).has("paste_on")).toBe(true);
    const read = (value: number) =>
      checks({
        ...{ ticks, positions: [at(0.06), sink] },
        acts: [act("work_done", "Q1", { word: "sink_insulation", value })],
      }).get("sink_insulation");
    expect(read(99e6)).toMatchObject({ doneIds: ["at-Q1"], lowIds: ["at-Q1"] });
    expect(read(100e6)).toMatchObject({ lowIds: [] });
  });
  it("takes a part's insulation from the gate before power too, the last reading since it went in counting", () => {
    const gate = (value: number | "open", sequence: number, subject = "at-Q1") => ({
      ...{ ...sampleMoment, id: `gate-${sequence}`, sequence, at: "2026-12-01T11:00:00Z", kind: "gate_check" as const },
      ...{ item: "sink" as const, subjectId: subject, values: [value], word: null, note: null },
    });
    const ticks = [
      { ...tick("Q1", "removed"), sequence: 1000 },
      { ...tick("Q1", "fitted"), sequence: 1001 },
    ];
    const work = (value: number, sequence: number) => ({
      ...act("work_done", "Q1", { word: "sink_insulation", value }),
      sequence,
    });
    const asked = (powerEvents: ReturnType<typeof gate>[], acts: JobAct[] = []) => {
      const found = checks({ ticks, positions: [at(0.06), sink], powerEvents: powerEvents as never[], acts });
      const one = found.get("sink_insulation");
      return [one?.doneIds.length, one?.lowIds.length];
    };
    expect(asked([])).toEqual([0, 0]);
    expect(asked([gate(5e6, 1002)])).toEqual([1, 1]);
    expect(asked([gate("open", 1002)])).toEqual([1, 0]);
    expect(asked([gate(5e6, 1002), gate(200e6, 1003)])).toEqual([1, 0]);
    // Before it went in, or of another part, it says nothing of this one.
    expect(asked([gate(5e6, 900), gate(5e6, 1002, "at-Q2")])).toEqual([0, 0]);
    expect(asked([gate(5e6, 1002)], [work(200e6, 1003)])).toEqual([1, 0]);
    expect(asked([gate(5e6, 1004)], [work(200e6, 1003)])).toEqual([1, 1]);
  });
  it("is scraping, washing and drying by what was seen, clearing by what was melted, and a tick can be taken back", () => {
    const seen = (sign: "adhesive_brown" | "leak", positionId: string | null, fittedPartId: string | null) => ({
      ...{ sequence: 1, sign, state: "seen" as const, observedAt: "2026-12-01T09:00:00Z", positionId, fittedPartId },
    });
    const signs = [seen("adhesive_brown", "at-C2", null), seen("leak", null, "part-C1")];
    const ticks = [tick("C1", "removed")];
    const acts = [act("joint_plane", "C1", { word: "both_sides" }), act("work_done", "C1", { word: "dried" })];
    const found = checks({ signs, ticks, acts });
    expect([...found].map(([kind, one]) => [kind, one.positionIds, one.doneIds])).toEqual([
      ["adhesive_scraped", ["at-C2"], []],
      ["alloy_cleared", ["at-C1"], []],
      ["electrolyte_washed", ["at-C1"], []],
      ["dried", ["at-C1"], ["at-C1"]],
    ]);
    const back = [...acts, act("work_done", "C1", { word: "taken_back", note: "dried" })];
    expect(checks({ signs, ticks, acts: back }).get("dried")?.doneIds).toEqual([]);
    expect(checks({ ticks, acts: [act("joint_plane", "C1", { word: "one_side" })] }).size).toBe(0);
  });
});

describe("the order of work", () => {
  const nets = [sampleNet({ id: "out", section: "output" }), sampleNet({ id: "bulk", section: "bulk" })];
  const place = (name: string, x: number | null, more: object = {}) =>
    samplePosition(name, { netId: "out", xMetres: x, yMetres: 0.02, ...more });
  const order = (positions: readonly ReturnType<typeof place>[], more: Partial<JobFacts> = {}, hasPhoto = true) =>
    reworkOrder(
      { ...sampleJob({ nets, positions, fittedParts: [], ...more }), acts: more.acts ?? [] },
      positions.map((one) => one.id),
      hasPhoto,
    );
  const names = (steps: ReturnType<typeof order>) => steps.map((one) => one.positionId.slice(3));
  it("goes by name on the secondary and keeps the mains side last, with its charge asked", () => {
    const steps = order([place("C1", 0.02, { netId: "bulk" }), place("C10", 0.05), place("C9", 0.08)]);
    expect(names(steps)).toEqual(["C9", "C10", "C1"]);
    expect(steps.map((one) => one.asksCharge)).toEqual([false, false, true]);
    expect(steps[2]?.reasons).toEqual(["mains_last"]);
    expect(order([place("C1", 0.02, { netId: "bulk" })])[0]).toMatchObject({ asksCharge: true, reasons: [] });
  });
  it("takes a small one before the tall one beside it, and what is glued before what it blocks", () => {
    const parts = [
      samplePart("C1", { heightMetres: 0.02, diameterMetres: 0.01 }),
      samplePart("C2", { heightMetres: 0.011, diameterMetres: 0.005 }),
    ];
    const beside = [place("C1", 0.02), place("C2", 0.03)];
    expect(names(order(beside, { fittedParts: parts }))).toEqual(["C2", "C1"]);
    expect(order(beside, { fittedParts: parts })[0]?.reasons).toEqual(["small_beside_tall"]);
    expect(names(order([place("C1", 0.02), place("C2", 0.04)], { fittedParts: parts }))).toEqual(["C1", "C2"]);
    const glued = [place("C1", 0.02, { fixing: "glued" }), place("C2", 0.03)];
    expect(names(order(glued, { fittedParts: parts }))).toEqual(["C1", "C2"]);
    expect(order(glued, { fittedParts: parts })[0]?.reasons).toEqual(["fixed_first"]);
    const both = glued.map((one) => ({ ...one, fixing: "glued" as const }));
    expect(names(order(both, { fittedParts: parts }))).toEqual(["C2", "C1"]);
  });
  it("stands as a person moved it, the last move of a place counting", () => {
    const places = ["C1", "C2", "C3"].map((name, n) => place(name, 0.02 + 0.03 * n));
    const acts = [
      act("work_before", "C3", { note: "at-C1" }),
      act("work_before", "C3", { note: "at-C2" }),
      act("work_before", "C1", { note: "gone" }),
    ];
    expect(names(order(places, { acts }))).toEqual(["C1", "C3", "C2"]);
    expect(order(places, { acts })[1]?.reasons).toEqual(["by_hand"]);
  });
  it("takes one at a time what neither a photo nor the drawing shows", () => {
    const places = [place("C1", null), place("C2", 0.05)];
    expect(order(places, {}, false).map((one) => one.isOneAtATime)).toEqual([true, false]);
    expect(order(places).some((one) => one.isOneAtATime)).toBe(false);
  });
});
