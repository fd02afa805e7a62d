import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleReading,
  sampleRules,
  sampleTips,
  shopRecord,
} from "../../testing/sampleJob";
import type { BaselineValue } from "../board/baseline";
import type { JobFacts } from "../facts/jobFacts";
import type { JudgementRules } from "../facts/jobRules";
import type { Reading } from "../readings/reading";
import { judgeBoard } from "./judgeBoard";
import type { PartJudgement } from "./verdict";

const rules = { ...sampleRules.judgement, failedFromRatio: 0.5 };
/** One part alone on its net. */
const alone = (readings: readonly Reading[], more: Partial<JobFacts> = {}) =>
  judged({ positions: [samplePosition("C1")], fittedParts: [samplePart("C1")], readings, ...more });
function judged(more: Partial<JobFacts>, by: JudgementRules = rules): PartJudgement {
  return judgeBoard(sampleJob(more), by).get("at-C1") as PartJudgement;
}
const codes = (judgement: PartJudgement) => judgement.ledger.map((one) => one.code);
const entry = (judgement: PartJudgement, code: string) => judgement.ledger.find((one) => one.code === code);
const band = (coarseCode: Reading["coarseCode"], circuitState: Reading["circuitState"] = "out") =>
  sampleReading("C1", { quantity: "tester_band", value: null, coarseCode, circuitState, frequencyHertz: null });
const hoursLater = (reading: Reading, hours: number): Reading => ({
  ...reading,
  measuredAt: new Date(Date.parse(reading.measuredAt) + hours * 3600e3).toISOString(),
});

describe("coarse testers", () => {
  it("are weighed as bands: red condemns, yellow decides nothing, green clears nothing", () => {
    expect(alone([band("band_bad")]).verdict).toBe("failed");
    expect(alone([band("band_doubtful")]).verdict).toBe("cannot_tell");
    const green = alone([band("band_good")]);
    expect(green.verdict).toBe("cannot_tell");
    expect(green.failedProbability).toBeLessThan(0.1);
    // Whatever it says, each band has its own weight, alone on its net or out of the board.
    const weights = (["band_good", "band_doubtful", "band_poor", "band_bad"] as const).map((code) =>
      (["out", "in_circuit"] as const).map((state) => entry(alone([band(code, state)]), code)?.weight ?? Number.NaN),
    );
    const expected = [
      [-1.5, -0.8],
      [0.8, 0.6],
      [1.5, 1.2],
      [2.2, 1.8],
    ];
    for (const [n, row] of expected.entries()) {
      for (const [m, weight] of row.entries()) expect(weights[n]?.[m], `${n} ${m}`).toBeCloseTo(weight, 10);
    }
  });
  it("say next to nothing for a part with neighbours in circuit", () => {
    const banked = judged({ readings: [band("band_good", "in_circuit")] });
    expect(entry(banked, "band_good")?.weight).toBeCloseTo(-0.2, 10);
  });
  it("count less beside numbers, and a hot can speaks against its part", () => {
    const esr = sampleReading("C1", { value: 0.04 });
    expect(entry(alone([esr, band("band_bad")]), "band_bad")?.weight).toBeCloseTo(0.3 * 2.2, 10);
    const hot = sampleReading("C1", { quantity: "observation", value: null, coarseCode: "hot" });
    expect(alone([esr, hot]).failedProbability).toBeGreaterThan(alone([esr]).failedProbability ?? 1);
  });
});

describe("readings that do not agree", () => {
  it("widen what they say and are named", () => {
    const wild = alone([0.03, 0.09, 0.2].map((value) => sampleReading("C1", { value })));
    expect(codes(wild)).toContain("repeats_conflict");
    expect(codes(alone([0.038, 0.04, 0.042].map((value) => sampleReading("C1", { value }))))).not.toContain(
      "repeats_conflict",
    );
  });
  it("keep a part from being sound that read bad in circuit and good after the iron, until it has rested", () => {
    const bad = sampleReading("C1", { value: 0.9, circuitState: "in_circuit" });
    const good = sampleReading("C1", { value: 0.035 });
    const farads = sampleReading("C1", { quantity: "capacitance", value: 980e-6, frequencyHertz: 120 });
    const now = alone([bad, good, farads]);
    expect([now.verdict, codes(now).includes("bad_then_good")]).toEqual(["cannot_tell", true]);
    expect(alone([bad, good, farads, hoursLater(good, 20)]).verdict).toBe("sound");
    expect(alone([good, farads]).verdict).toBe("sound");
    // A capacitance is no second look at its ESR, and a reading off the board is no reading in circuit.
    expect(codes(alone([farads, good]))).not.toContain("bad_then_good");
    expect(codes(alone([sampleReading("C1", { value: 0.9 }), good]))).not.toContain("bad_then_good");
  });
  it("take a tester's red in circuit for the part's own only where nothing stands beside it", () => {
    const red = (state: "in_circuit" | "out") =>
      sampleReading("C1", { quantity: "tester_band", value: null, coarseCode: "band_bad", circuitState: state });
    const good = sampleReading("C1", { value: 0.035 });
    expect(codes(alone([red("in_circuit"), good]))).toContain("bad_then_good");
    expect(codes(judged({ readings: [red("in_circuit"), good] }))).not.toContain("bad_then_good");
    const yellow = sampleReading("C1", { ...red("in_circuit"), coarseCode: "band_doubtful" });
    expect(codes(alone([yellow, good]))).not.toContain("bad_then_good");
  });
});

describe("what stands beside a part", () => {
  const inCircuit = (at: string, value: number) => sampleReading(at, { value, circuitState: "in_circuit" });
  const three = {
    positions: ["C1", "C2", "C3"].map((at) => samplePosition(at)),
    fittedParts: ["C1", "C2", "C3"].map((at) => samplePart(at)),
  };
  it("takes neighbours that were read by themselves as they are", () => {
    // C1 and C2 together read as one good part would: one of the two has gone.
    const masked = judged({ readings: [inCircuit("C1", 0.033)] });
    const known = judged({ readings: [inCircuit("C1", 0.033), sampleReading("C2", { value: 1.2 })] });
    expect(entry(masked, "bank_states")?.value).toBeGreaterThan(0.25);
    expect(entry(known, "bank_states")?.value).toBeLessThan(0.1);
    expect(codes(known)).toContain("bank_known");
  });
  it("names the masking bound in ohms and the lead that tells most, never one that was lifted", () => {
    const readings = [inCircuit("C1", 0.022), sampleReading("C2", { value: 0.03 })];
    const judgement = judged({ ...three, readings });
    expect(entry(judgement, "bank_masked")?.value).toBeGreaterThan(3 * (judgement.expected?.typicalOhms ?? 1) * 0.99);
    expect(["at-C1", "at-C3"]).toContain(judgement.leadToLiftId);
  });
  it("takes a series bank as parts of their own, and volts over both as nobody's", () => {
    const network = { arrangement: "series" as const, behindNetId: null, chokeHenrys: null, chokeOhms: null };
    const judgement = judged({ nets: [sampleNet({ network })], readings: [inCircuit("C1", 0.9)] });
    expect([judgement.verdict, judgement.bankPositionIds]).toEqual(["failed", ["at-C1"]]);
    expect(codes(judgement)).toContain("bank_series");
  });
  it("sees a bank across a choke through the choke: far off at 100 kHz, near at 1 kHz", () => {
    const nets = [
      sampleNet(),
      sampleNet({
        id: "net-post",
        network: { arrangement: "parallel", behindNetId: "net-12", chokeHenrys: 4.7e-6, chokeOhms: 0.01 },
      }),
    ];
    const positions = [samplePosition("C1"), samplePosition("C2", { netId: "net-post" })];
    const at = (frequencyHertz: number) =>
      judged({
        nets,
        positions,
        readings: [sampleTips(), sampleReading("C1", { value: 0.18, circuitState: "in_circuit", frequencyHertz })],
      });
    expect(entry(at(100e3), "bank_choke")?.value).toBe(4.7e-6);
    expect(at(100e3).failedProbability).toBeGreaterThan(0.5);
    // From the other side of the choke the same holds.
    const post = sampleReading("C2", { value: 0.9, circuitState: "in_circuit" });
    const other = judgeBoard(sampleJob({ nets, positions, readings: [post] }), rules).get("at-C2");
    expect(other?.ledger.map((one) => one.code)).toContain("bank_choke");
  });
  it("takes off what was measured to lie parallel", () => {
    const load = sampleReading("none", {
      targetKind: "rail",
      targetId: "net-12",
      fittedPartId: null,
      quantity: "resistance",
      value: 0.5,
      circuitState: null,
    });
    const readings = [inCircuit("C1", 0.08)];
    const free = alone(readings);
    const loaded = alone([...readings, load]);
    expect(codes(loaded)).toContain("bank_parallel");
    expect(loaded.interval?.multipleMin).toBeGreaterThan(free.interval?.multipleMin ?? 9);
  });
});

describe("rules, record and persons", () => {
  it("takes off leads, and the reactance where the meter shows impedance", () => {
    const small = samplePart("C1", {
      capacitanceFarads: 4.7e-6,
      diameterMetres: 0.005,
      heightMetres: 0.011,
      ratedVolts: 50,
    });
    // 1 ohm in series with 0.34 ohm of reactance at 100 kHz.
    const readings = [sampleReading("C1", { value: Math.hypot(1.1, 1 / (2 * Math.PI * 100e3 * 4.7e-6)) })];
    const facts = { positions: [samplePosition("C1")], fittedParts: [small], readings };
    const by = judged(facts, { ...rules, leadOhms: 0.1, testerShows: "magnitude" });
    expect(entry(by, "esr_out_of_circuit")?.value).toBeCloseTo(1, 1);
    expect(codes(by)).toContain("esr_compensated");
  });
  it("names what lies between rows and beyond them, and widens only the latter", () => {
    const esr = [sampleReading("C1", { value: 0.04 })];
    const at = (more: Parameters<typeof samplePart>[1]) =>
      alone(esr, { fittedParts: [samplePart("C1", { diameterMetres: null, heightMetres: null, ...more })] });
    expect(codes(at({ ratedVolts: 20 }))).toContain("esr_interpolated");
    expect(codes(at({ ratedVolts: 700, capacitanceFarads: 10e-6 }))).toContain("esr_extrapolated");
    expect(codes(at({ ratedVolts: 16 })).join()).not.toMatch(/polated/);
  });
  it("holds a reading against a known-good board, and half as much against a history", () => {
    const baseline = (isKnownGood: boolean): BaselineValue => ({
      designator: "C1",
      quantity: "esr",
      isInCircuit: false,
      frequencyHertz: 100e3,
      typical: 0.03,
      low: 0.02,
      high: 0.04,
      unitCount: 1,
      isKnownGood,
    });
    const weight = (good: boolean) => {
      const found = alone([sampleReading("C1", { value: 0.12 })], { baseline: [baseline(good)] });
      return entry(found, "baseline_esr_out")?.weight;
    };
    expect(weight(true)).toBeCloseTo(2.5, 10);
    expect(weight(false)).toBeCloseTo(1.25, 10);
    expect(alone([], { baseline: [baseline(true)] }).verdict).toBe("not_measured");
  });
  it("keeps a person's word beside the computed verdict, and takes it back", () => {
    const readings = [sampleReading("C1", { value: 2 })];
    const say = (verdict: "sound" | null, sequence: number) => ({
      fittedPartId: "part-C1",
      verdict,
      reason: "swapped against a good one",
      at: "2026-11-23T12:00:00Z",
      sequence,
    });
    const first = say("sound", 1);
    const by = alone(readings, { overrules: [first] });
    expect([by.verdict, by.computedVerdict, by.overrule?.reason]).toEqual([
      "sound",
      "failed",
      "swapped against a good one",
    ]);
    expect(alone(readings, { overrules: [say(null, 2), first] }).verdict).toBe("failed");
  });
  it("overrules an open vent too: then the part need not go", () => {
    const signs = [
      {
        fittedPartId: "part-C1",
        sign: "vented" as const,
        state: "seen" as const,
        observedAt: "2026-11-23T10:00:00Z",
        sequence: 1,
      },
    ];
    const overrule = {
      fittedPartId: "part-C1",
      verdict: "sound" as const,
      reason: "it is glue",
      at: "2026-11-23T12:00:00Z",
      sequence: 2,
    };
    expect(alone([], { signs }).mustReplace).toBe(true);
    expect(alone([], { signs, overrules: [overrule] }).mustReplace).toBe(false);
  });
  it("holds a reading against its brothers: far above them speaks against it, like them clears nothing", () => {
    const brothers = { designator: "C1", quantity: "esr" as const, isInCircuit: false, frequencyHertz: 100e3 };
    const band = { typical: 0.04, low: 0.03, high: 0.05, unitCount: 3, isKnownGood: false };
    const read = (value: number, isOfBrothers: boolean) =>
      alone([sampleReading("C1", { value })], { baseline: [{ ...brothers, ...band, isOfBrothers }] });
    const apart = entry(read(0.1, true), "baseline_esr_out");
    expect(apart).toMatchObject({ source: "brothers:3" });
    expect(apart?.weight).toBeCloseTo(0.75, 6);
    expect(entry(read(0.04, true), "baseline_esr_out")).toBeUndefined();
    expect(entry(read(0.04, false), "baseline_esr_out")?.weight).toBeLessThan(0);
  });
  it("moves the prior by the shop's record, and says that it is neutral without one", () => {
    const facts = sampleJob({ readings: [band("band_doubtful")] });
    const without = judgeBoard(facts, rules).get("at-C1") as PartJudgement;
    const record = shopRecord([{ level: "place", subject: "C1", failedCount: 18, seenCount: 20 }]);
    const withRecord = judgeBoard({ ...facts, record }, rules).get("at-C1") as PartJudgement;
    expect(entry(without, "record_neutral")?.weight).toBe(0);
    expect(withRecord.failedProbability).toBeGreaterThan((without.failedProbability ?? 1) + 0.1);
  });
  it("weighs leakage by current and by ohms out of circuit, and no ohms of a part that still charges", () => {
    const leak = sampleReading("C1", { quantity: "leakage_current", value: 5e-3, circuitState: "out" });
    const ohms = (value: number) => sampleReading("C1", { quantity: "resistance", value, circuitState: "out" });
    expect(alone([leak]).verdict).toBe("failed");
    expect(alone([ohms(300)]).verdict).toBe("failed");
    expect(alone([ohms(90e3)]).verdict).toBe("not_measured");
  });
});

it("condemns a whole bank in circuit where nearly every state that fits has all of it failed", () => {
  const names = ["C1", "C2", "C3"];
  const readings = names.map((at) => sampleReading(at, { value: 0.11, circuitState: "in_circuit" }));
  const judgement = judged({
    positions: names.map((at) => samplePosition(at)),
    fittedParts: names.map((at) => samplePart(at)),
    readings: [sampleTips(), ...readings],
  });
  expect(judgement.interval?.verdict).toBe("masked");
  expect(entry(judgement, "bank_states")?.value).toBeGreaterThan(0.9);
  expect([judgement.verdict, codes(judgement).includes("condemned_by_states")]).toEqual(["failed", true]);
});
