import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleReading,
  sampleRules,
  sampleTips,
} from "../../testing/sampleJob";
import type { JobFacts } from "../facts/jobFacts";
import { latestSigns, type SignObservation, type VisualSign } from "../facts/visualSigns";
import type { JudgedBoard } from "./judgeBoard";
import { judgeBoard, judgePosition, rejudgeBoard } from "./judgeBoard";

const judge = (job: JobFacts, school = sampleRules.judgement) => judgeBoard(job, school);
const verdictOf = (job: JobFacts, at = "C1") => judge(job).get(`at-${at}`)?.verdict;
const seen = (designator: string, sign: VisualSign, state: "seen" | "not_seen" = "seen"): SignObservation => ({
  fittedPartId: `part-${designator}`,
  sign,
  state,
  observedAt: "2026-11-23T09:00:00Z",
  sequence: 1,
});
/** C1 by itself on its net. */
const alone = (more: Partial<JobFacts> = {}) =>
  sampleJob({ positions: [samplePosition("C1")], fittedParts: [samplePart("C1")], ...more });

describe("judgeBoard, one part", () => {
  it("has not measured what nobody read, even if it looks clean", () => {
    expect(verdictOf(alone())).toBe("not_measured");
    expect(verdictOf(alone({ signs: [seen("C1", "domed", "not_seen")] }))).toBe("not_measured");
  });

  it("clears a part that reads like new with a lead lifted", () => {
    expect(verdictOf(alone({ readings: [sampleReading("C1")] }))).toBe("sound");
  });

  it("fails a part at ten times its typical ESR, in circuit too", () => {
    expect(verdictOf(alone({ readings: [sampleReading("C1", { value: 0.32 })] }))).toBe("failed");
    const inCircuit = sampleReading("C1", { value: 0.32, circuitState: "in_circuit" });
    expect(verdictOf(alone({ readings: [sampleTips(), inCircuit] }))).toBe("failed");
  });

  it("does not clear in circuit by the default house rule, and says which rule that was", () => {
    const job = alone({ readings: [sampleReading("C1", { circuitState: "in_circuit" })] });
    const judgement = judge(job).get("at-C1");
    expect(judgement?.verdict).toBe("cannot_tell");
    expect(judgement?.ledger.map((entry) => entry.code)).toContain("in_circuit_cannot_clear");
    const bound = judge(job, { ...sampleRules.judgement, inCircuitSchool: "bank_bound" }).get("at-C1");
    expect(bound?.verdict).toBe("sound");
  });

  it("replaces a vented part whatever it reads, and reports the conflict", () => {
    const readings = [
      sampleReading("C1", { value: 0.032 }),
      sampleReading("C1", { quantity: "capacitance", value: 1e-3 }),
    ];
    const judgement = judge(alone({ readings, signs: [seen("C1", "vented")] })).get("at-C1");
    expect(judgement?.mustReplace).toBe(true);
    expect(judgement?.flags).toContain("conflict");
  });

  it("takes capacitance far above the marking with voltage loss for leakage", () => {
    const readings = [
      sampleReading("C1", { quantity: "capacitance", value: 1.6e-3 }),
      sampleReading("C1", { quantity: "voltage_loss", value: 0.18 }),
    ];
    const judgement = judge(alone({ readings })).get("at-C1");
    expect(judgement?.flags).toContain("leakage_signature");
    expect(judgement?.verdict).toBe("failed");
  });

  it("does not let a short circuit clear a part", () => {
    const judgement = judge(alone({ readings: [sampleReading("C1", { value: 0.001 })] })).get("at-C1");
    expect(judgement?.verdict).not.toBe("sound");
    expect(judgement?.flags).toContain("esr_low_unexplained");
  });

  it("cannot tell without a marking, and lists what is missing", () => {
    const fittedParts = [samplePart("C1", { capacitanceFarads: null })];
    const judgement = judge(alone({ fittedParts, readings: [sampleReading("C1")] })).get("at-C1");
    expect(judgement?.verdict).toBe("cannot_tell");
    expect(judgement?.ledger.map((entry) => entry.code)).toContain("marking_missing");
  });

  it("forgets a withdrawn reading and believes a correction", () => {
    const slip = sampleReading("C1", { value: 3.2 });
    const correction = sampleReading("C1", { value: 0.032, supersedesId: slip.id });
    expect(verdictOf(alone({ readings: [slip, correction] }))).toBe("sound");
    const withdrawal = sampleReading("C1", { value: null, isWithdrawn: true, supersedesId: slip.id });
    expect(verdictOf(alone({ readings: [slip, withdrawal] }))).toBe("not_measured");
  });

  it("is not carried away by one slip among repeats", () => {
    const readings = [0.033, 0.034, 0.9].map((value) => sampleReading("C1", { value }));
    expect(verdictOf(alone({ readings }))).not.toBe("failed");
  });

  it("compares at the tester's own frequency", () => {
    const at1k = sampleReading("C1", { value: 0.06, frequencyHertz: 1000 });
    expect(verdictOf(alone({ readings: [at1k] }))).toBe("sound");
  });

  test.prop([fc.double({ min: 0.02, max: 20, noNaN: true })])(
    "never thinks better of a higher ESR, but for what may be a slip",
    (value) => {
      const chance = (esr: number) =>
        judge(alone({ readings: [sampleReading("C1", { value: esr })] })).get("at-C1")?.failedProbability ?? 0;
      expect(chance(value * 1.2)).toBeGreaterThanOrEqual(chance(value) - 0.01);
    },
  );
});

describe("judgeBoard, a bank", () => {
  const inCircuit = (value: number, designator = "C1") =>
    sampleReading(designator, { value, circuitState: "in_circuit" });

  it("leaves both masked where a good neighbour can hide a bad part", () => {
    const job = sampleJob({ readings: [inCircuit(0.03)] });
    expect(verdictOf(job, "C1")).toBe("cannot_tell");
    expect(judge(job).get("at-C2")?.interval?.verdict).toBe("masked");
  });

  it("condemns both where even the best neighbour could not excuse them", () => {
    const job = sampleJob({ readings: [inCircuit(0.5)] });
    expect(verdictOf(job, "C1")).toBe("failed");
    expect(verdictOf(job, "C2")).toBe("failed");
  });

  it("judges a lifted part by itself and leaves its neighbour to the bank", () => {
    const job = sampleJob({ readings: [sampleReading("C1", { value: 0.5 }), inCircuit(0.035, "C2")] });
    expect(verdictOf(job, "C1")).toBe("failed");
    expect(verdictOf(job, "C2")).toBe("cannot_tell");
  });

  it("does not join parts across nets", () => {
    const nets = [sampleNet(), sampleNet({ id: "net-post", section: "output-post" })];
    const positions = [samplePosition("C1"), samplePosition("C2", { netId: "net-post" })];
    const judgement = judge(sampleJob({ nets, positions, readings: [inCircuit(0.5)] }));
    expect(judgement.get("at-C1")?.bankPositionIds).toEqual(["at-C1"]);
    expect(judgement.get("at-C2")?.verdict).toBe("not_measured");
  });

  it("does not read one part's capacitance from the sum of the bank", () => {
    const sum = sampleReading("C1", { quantity: "capacitance", value: 2e-3, circuitState: "in_circuit" });
    const judgement = judge(sampleJob({ readings: [sum] })).get("at-C1");
    expect(judgement?.verdict).toBe("cannot_tell");
    expect(judgement?.flags).toEqual([]);
  });

  it("keeps judging what was found after it was taken out, and the new part by its own readings", () => {
    const old = samplePart("C1", { removedAt: "2026-11-23T12:00:00Z" });
    const fresh = samplePart("C1", { id: "fresh", origin: "replacement", datasheetEsrOhms: 0.046 });
    const job = sampleJob({
      fittedParts: [old, fresh, samplePart("C2")],
      readings: [sampleReading("C1", { value: 0.5 }), sampleReading("C1", { value: 0.03, fittedPartId: "fresh" })],
    });
    expect(verdictOf(job, "C1")).toBe("failed");
    expect(judgeBoard(job, sampleRules.judgement, "current").get("at-C1")?.verdict).toBe("sound");
  });
});

describe("judgePosition", () => {
  it("says of one position what judgeBoard says of it, and nothing of one that is not there", () => {
    const job = sampleJob({
      readings: [sampleReading("C1", { value: 0.5 }), sampleReading("C2", { circuitState: "in_circuit" })],
    });
    for (const which of ["found", "current"] as const) {
      for (const [id, judgement] of judgeBoard(job, sampleRules.judgement, which)) {
        expect(judgePosition(job, id, sampleRules.judgement, which)).toEqual(judgement);
      }
    }
    expect(judgePosition(job, "nowhere", sampleRules.judgement)).toBeUndefined();
  });
});

describe("the ledger", () => {
  it("weighs a bad ESR against the part and a good one for it", () => {
    const weight = (value: number) =>
      judge(alone({ readings: [sampleReading("C1", { value })] }))
        .get("at-C1")
        ?.ledger.find((entry) => entry.kind === "esr")?.weight ?? 0;
    expect(weight(0.5)).toBeGreaterThan(3);
    expect(weight(0.032)).toBeLessThan(-1);
  });

  it("gives every entry its own weight even where another would do alone", () => {
    const readings = [
      sampleReading("C1", { value: 0.5 }),
      sampleReading("C1", { quantity: "capacitance", value: 4e-4 }),
    ];
    const ledger = judge(alone({ readings, signs: [seen("C1", "domed")] })).get("at-C1")?.ledger ?? [];
    for (const kind of ["esr", "capacitance", "sign"]) {
      expect(ledger.find((entry) => entry.kind === kind)?.weight).toBeGreaterThan(1);
    }
  });

  it("names where the expectation comes from and the readings it stands on", () => {
    const reading = sampleReading("C1");
    const entry = judge(alone({ readings: [reading] })).get("at-C1")?.ledger[0];
    expect(entry).toMatchObject({ kind: "esr", source: "can_table", readingIds: [reading.id] });
    expect(entry?.failedLimit).toBeCloseTo(3 * (entry?.expectation?.typical ?? 0), 10);
  });
});

it("the observation of a sign that was stored last counts, whatever the clocks say", () => {
  const later: SignObservation = {
    ...seen("C1", "domed", "not_seen"),
    sequence: 2,
    observedAt: "2026-11-23T08:00:00Z",
  };
  expect(latestSigns([later, seen("C1", "domed"), seen("C2", "leak")], "part-C1")).toEqual({ domed: "not_seen" });
});

describe("rejudgeBoard", () => {
  const positions = ["C1", "C2", "C3", "C4"].map((name, index) =>
    samplePosition(name, { netId: index < 2 ? "net-12" : null }),
  );
  const board = {
    nets: [],
    positions,
    fittedParts: positions.map((one) => samplePart(one.designator)),
    signs: [],
  };
  const reading = fc.record({
    at: fc.constantFrom("C1", "C2", "C3", "C4"),
    value: fc.double({ min: 0.01, max: 3, noNaN: true }),
    state: fc.constantFrom("in_circuit" as const, "lead_lifted" as const),
  });
  test.prop([fc.array(reading, { maxLength: 6 }), fc.array(reading, { minLength: 1, maxLength: 3 })])(
    "says the same as judging everything anew",
    (first, then) => {
      const made = (one: (typeof first)[number]) =>
        sampleReading(one.at, { value: one.value, circuitState: one.state });
      const before = { ...board, readings: first.map(made) };
      const after = { ...board, readings: [...before.readings.slice(1), ...then.map(made)] };
      const rules = sampleRules.judgement;
      const judged = { board: before, rules, judgements: judgeBoard(before, rules) };
      expect(rejudgeBoard(judged, after, rules)).toEqual(judgeBoard(after, rules));
    },
  );
  it("keeps everything where nothing happened, and hears one more reading in every part's leads", () => {
    const rules = sampleRules.judgement;
    const before = { ...board, readings: [sampleReading("C3", { value: 0.4 })] };
    const judged = { board: before, rules, judgements: judgeBoard(before, rules) };
    expect(rejudgeBoard(judged, { ...before }, rules)).toBe(judged.judgements);
    const after = { ...before, readings: [...before.readings, sampleReading("C1", { value: 2 })] };
    const next = rejudgeBoard(judged, after, rules);
    expect(next.get("at-C2")).not.toBe(judged.judgements.get("at-C2"));
    expect(next.get("at-C3")?.leads.readingCount).toBe(2);
  });
});

describe("rejudgeBoard", () => {
  const network = { arrangement: "parallel", behindNetId: "net-12", chokeHenrys: 4.7e-6, chokeOhms: 0.02 } as const;
  const nets = [sampleNet(), sampleNet({ id: "net-post", network }), sampleNet({ id: "net-5" })];
  const places = [
    ["C1", "net-12"],
    ["C2", "net-12"],
    ["C3", "net-post"],
    ["C4", "net-5"],
    ["C5", null],
  ] as const;
  const board = sampleJob({
    nets,
    positions: places.map(([name, netId]) => samplePosition(name, { netId })),
    fittedParts: places.map(([name]) => samplePart(name)),
  });
  type Edit = readonly [place: number, kind: number, value: number];
  const names = places.map(([name]) => name);
  const known = {
    quantity: "esr",
    frequencyHertz: 100e3,
    isInCircuit: false,
    unitCount: 3,
    isKnownGood: true,
  } as const;
  /** One thing that happened: a reading of a part or of its net, one taken back, a sign, an overrule, a known-good unit. */
  function edited(facts: JobFacts, [place, kind, value]: Edit): JobFacts {
    const name = names[place % names.length] as string;
    const at = { fittedPartId: `part-${name}`, sequence: kind + value, observedAt: "2026-11-23T10:00:00Z" };
    switch (kind) {
      case 0:
        return { ...facts, readings: [...facts.readings, sampleReading(name, { value })] };
      case 1:
        return { ...facts, readings: [...facts.readings, sampleReading(name, { value, circuitState: "in_circuit" })] };
      case 2:
        return { ...facts, readings: facts.readings.slice(1) };
      case 3:
        return { ...facts, signs: [...facts.signs, { ...at, sign: "domed", state: "seen" }] };
      case 4:
        return {
          ...facts,
          overrules: [...facts.overrules, { ...at, verdict: "sound", reason: "known", at: "2026-11-23T10:00:00Z" }],
        };
      case 5: {
        const targetId = places[place % places.length]?.[1];
        if (!targetId) return facts;
        const rail = { targetKind: "rail", targetId, fittedPartId: null, circuitState: "in_circuit" } as const;
        return {
          ...facts,
          readings: [...facts.readings, sampleReading(name, { ...rail, quantity: "resistance", value: value * 100 })],
        };
      }
      default:
        return { ...facts, baseline: [{ ...known, designator: name, typical: value, low: value * 0.8, high: value }] };
    }
  }
  const edits = fc.array(fc.tuple(fc.nat({ max: 4 }), fc.nat({ max: 6 }), fc.constantFrom(0.01, 0.03, 0.08, 0.4)), {
    minLength: 1,
    maxLength: 8,
  });
  test.prop([edits], { numRuns: 60 })("is judgeBoard after whatever happened", (all) => {
    let facts = board;
    let before: JudgedBoard | null = null;
    for (const edit of all) {
      facts = edited(facts, edit);
      const judgements = rejudgeBoard(before, facts, sampleRules.judgement);
      expect(judgements).toEqual(judgeBoard(facts, sampleRules.judgement));
      before = { board: facts, rules: sampleRules.judgement, judgements };
    }
  });
});

describe("a bank whose states condemn a part", () => {
  it.each([
    { parts: 2, ohms: 0.08, failedFromRatio: 0.5, verdict: "cannot_tell" },
    { parts: 3, ohms: 0.1, failedFromRatio: 0.95, verdict: "cannot_tell" },
    { parts: 3, ohms: 0.1, failedFromRatio: 0.5, verdict: "failed" },
  ])(
    "does so from the house's threshold or from nine in ten, whichever is higher: $parts parts, $failedFromRatio",
    (row) => {
      const names = ["C1", "C2", "C3"].slice(0, row.parts);
      const board = sampleJob({
        positions: names.map((name) => samplePosition(name)),
        fittedParts: names.map((name) => samplePart(name)),
        readings: [sampleTips(), sampleReading("C1", { value: row.ohms, circuitState: "in_circuit" })],
      });
      const judgement = judgeBoard(board, { ...sampleRules.judgement, failedFromRatio: row.failedFromRatio }).get(
        "at-C1",
      );
      expect(judgement?.failedProbability).toBeGreaterThan(0.5);
      expect(judgement?.verdict).toBe(row.verdict);
    },
  );
});
