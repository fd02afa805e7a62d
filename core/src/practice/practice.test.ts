import { fc, test as property } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import { planningConstants } from "../constants/planningConstants";
import type { JobFacts } from "../facts/jobFacts";
import { JobJudge } from "../job/jobJudge";
import { type DebriefQuestion, debrief, type PracticeAct } from "./debrief";
import { itemChances, outsideItem } from "./itemChances";
import { expectedVarianceDrop, learnerState, nextSupply } from "./learner";
import { lessonCodes, lessonModels } from "./lessonModels";
import { type PracticeBreach, practicePenalties } from "./penalties";
import { practiceScore } from "./practiceScore";

describe("the score", () => {
  it("of 0.9, 0.1, 0.2 on bad, sound, sound is a Brier of 0.02", () => {
    const items = [0.9, 0.1, 0.2].map((badProbability, n) => ({ badProbability, isBad: n === 0 }));
    const score = practiceScore({
      ...{ items, minutes: 20, bestMinutes: 20, weights: { brier: 1, log: 0, time: 0 }, penalties: {} },
    });
    expect(score.brier).toBeCloseTo(0.02, 12);
    expect(score.total).toBeCloseTo(92, 9);
  });
  property.prop([fc.double({ min: 0.02, max: 0.98, noNaN: true }), fc.double({ min: 0.02, max: 0.98, noNaN: true })])(
    "is best on average for whoever says what he holds",
    (held, said) => {
      const of = (p: number, isBad: boolean) =>
        practiceScore({
          items: [{ badProbability: p, isBad }],
          ...{ minutes: 1, bestMinutes: 1, weights: { brier: 1, log: 0, time: 0 }, penalties: {} },
        }).brier;
      const expected = (p: number) => held * of(p, true) + (1 - held) * of(p, false);
      expect(expected(held)).toBeLessThanOrEqual(expected(said) + 1e-12);
    },
  );
  it("counts what could have hurt somebody as no matter of points", () => {
    const safety: readonly PracticeBreach[] = [
      ...(["live_touch", "bench_tripped", "meter_killed", "part_vented", "power_untested", "host_unchecked"] as const),
    ];
    for (const code of Object.keys(practicePenalties) as PracticeBreach[]) {
      expect(practicePenalties[code] >= planningConstants.K.fatal_points, code).toBe(safety.includes(code));
    }
  });
});

describe("a learner", () => {
  it("is told by counting, with the interval that few trials leave", () => {
    const state = learnerState([
      { draining: { good: 1, total: 1 } },
      { draining: { good: 0, total: 1 }, choosing: { good: 1, total: 1 } },
    ]);
    const [draining, inCircuit] = state;
    expect(draining).toMatchObject({ good: 1, total: 2, meanRatio: 0.5 });
    expect((draining?.highRatio ?? 0) - (draining?.lowRatio ?? 0)).toBeGreaterThan(0.7);
    expect(inCircuit).toMatchObject({ good: 0, total: 0 });
  });
  it("learns less from each further trial", () => {
    // Beta(1, 1): 1/12 before, 1/18 after one trial whatever comes of it.
    expect(expectedVarianceDrop({ a: 1, b: 1 })).toBeCloseTo(1 / 12 - 1 / 18, 12);
    expect(expectedVarianceDrop({ a: 5, b: 5 })).toBeLessThan(expectedVarianceDrop({ a: 2, b: 2 }));
  });
  it("is offered where the doubt is largest, the easier first, nothing twice before all were done", () => {
    const offered = [
      { name: "hard", difficulty: 3, skills: ["draining", "choosing"] as const },
      { name: "easy", difficulty: 1, skills: ["draining", "choosing"] as const },
      { name: "proof", difficulty: 1, skills: ["proving"] as const },
    ];
    expect(nextSupply(offered, learnerState([]), [])?.name).toBe("easy");
    expect(nextSupply(offered, learnerState([]), ["easy"])?.name).toBe("hard");
    const drilled = Array.from({ length: 12 }, () => ({
      draining: { good: 1, total: 1 },
      choosing: { good: 1, total: 1 },
    }));
    expect(nextSupply(offered, learnerState(drilled), [])?.name).toBe("proof");
    expect(nextSupply(offered, learnerState([]), ["easy", "hard", "proof"])?.name).toBe("easy");
    expect(nextSupply([], learnerState([]), [])).toBeNull();
  });
});

const facts = sampleJob({
  symptoms: ["ripple_switching"],
  nets: [
    sampleNet({ id: "net-12", name: "12 V", section: "output", nominalVolts: 12, fullLoadAmps: 2 }),
    sampleNet({ id: "net-bulk", name: "Bulk", section: "bulk", nominalVolts: 325 }),
  ],
  positions: [
    samplePosition("C1", { netId: "net-12" }),
    samplePosition("C2", { netId: "net-12" }),
    samplePosition("C9", { netId: "net-bulk" }),
    samplePosition("F1", { kind: "fuse", netId: null }),
  ],
  fittedParts: ["C1", "C2", "C9"].map((at) => samplePart(at)),
});
let count = 0;
const act = (kind: string, at: string | null, more: Partial<PracticeAct> = {}): PracticeAct => ({
  ...{ sequence: ++count, kind, at, minutes: 2, fitted: null, hintLevel: null },
  ...more,
});
const read = (at: string, value: number, circuitState: "in_circuit" | "lead_lifted" = "lead_lifted") =>
  sampleReading(at, { value, circuitState, sequence: ++count });
const ask = (more: Partial<DebriefQuestion> & { readonly readings?: JobFacts["readings"] } = {}) => {
  const { readings = [], ...others } = more;
  return debrief({
    ...{ facts: { ...facts, readings }, rules: sampleRules, acts: [], events: [], bestMinutes: 10 },
    truth: new Map([
      ["C1", true],
      ["C2", false],
      ["C9", false],
      ["F1", false],
      [outsideItem, false],
    ]),
    answer: new Map([
      ["C1", 0.95],
      ["C2", 0.05],
      ["C9", 0.05],
      ["F1", 0.05],
      [outsideItem, 0.05],
    ]),
    ...others,
  });
};

describe("what a job says of its places at the end", () => {
  const chances = (more: Partial<JobFacts>) => {
    const all = { ...facts, ...more };
    return itemChances(all, new JobJudge(all, sampleRules).judge());
  };
  it("is the verdict of what was read, and the prior of what was not", () => {
    const before = chances({});
    const after = chances({ readings: [read("C1", 3), read("C2", 0.03)] });
    expect(after.get("at-C1")).toBeGreaterThan(0.9);
    expect(after.get("at-C2")).toBeLessThan(before.get("at-C2") ?? 0);
    expect(after.get("at-C9")).toBeLessThan(0.5);
    const fuse = (value: number) =>
      chances({
        readings: [
          sampleReading("F1", { quantity: "resistance", value, terminals: "1,2", circuitState: "in_circuit" }),
        ],
      });
    expect(fuse(1e7).get("at-F1")).toBeGreaterThan(0.9);
    expect(fuse(0.1).get("at-F1")).toBeLessThan(0.05);
  });
  it("counts a joint that was seen cracked", () => {
    const sign = {
      fittedPartId: null,
      positionId: "at-F1",
      sign: "cracked_joint",
      observedAt: "2026-01-01T00:00:00Z",
      sequence: 1,
    } as const;
    expect(chances({ signs: [{ ...sign, state: "seen" }] }).get("at-F1")).toBeGreaterThan(0.9);
    expect(chances({ signs: [{ ...sign, state: "not_seen" }] }).get("at-F1")).toBeLessThan(0.5);
  });
  it("is something around the supply where another one in its place works no better", () => {
    const around = (word: string) =>
      chances({ intake: { checks: { benchFeed: word }, outputVolts: null }, symptoms: ["no_picture"] });
    expect(around("bad").get(outsideItem)).toBeGreaterThan(0.5);
    expect(around("good").get(outsideItem)).toBeLessThan(0.3);
  });
});

describe("a debrief", () => {
  it("tells each act in its order, with what it taught, and when the evidence sufficed", () => {
    const [a, b, c] = [act("lift", "C1"), read("C1", 3), read("C2", 0.03)];
    const found = ask({ readings: [b, c], acts: [a] });
    expect(found.steps.map((one) => [one.kind, one.at])).toEqual([
      ["lift", "C1"],
      ["esr", "C1"],
      ["esr", "C2"],
    ]);
    expect(found.steps[1]?.bits).not.toBe(0);
    expect(found.sufficedAfter).toBe(2);
    expect(found.minutes).toBeCloseTo(2 + 0.4 + 0.4, 9);
    expect(ask({ readings: [] }).sufficedAfter).toBeNull();
  });
  it("counts what was condemned and is sound, what was left and is bad, and says nothing of what nobody spoke of", () => {
    const found = ask({
      answer: new Map([
        ["C1", 0.2],
        ["C2", 0.8],
      ]),
    });
    expect(found).toMatchObject({ badLeft: ["C1"], soundCondemned: ["C2"] });
    expect(found.items.find((one) => one.at === "C9")?.badProbability).toBe(0.5);
    expect(found.breaches).toContainEqual({ code: "bad_left", count: 1, points: 10 });
  });
  it("calls a lift needless where the part was as good as known, and not where it was in doubt", () => {
    const early = ask({ acts: [act("lift", "C2")], readings: [] });
    expect(early.needlessLifts).toEqual([]);
    const [known, lift] = [read("C1", 3), act("lift", "C1")];
    expect(ask({ acts: [lift], readings: [known] }).needlessLifts).toEqual(["C1"]);
  });
  it("leaves mending of what is bad out of the minutes, and not of what is sound", () => {
    expect(ask({ acts: [act("fit", "C1", { minutes: 5 })] }).minutes).toBeLessThan(1);
    expect(ask({ acts: [act("fit", "C2", { minutes: 5 })] }).minutes).toBe(5);
  });
  it("counts the search until the last bad part is mended, not the first", () => {
    const truth = new Map([
      ["C1", true],
      ["C9", true],
      ["C2", false],
    ]);
    const [first, between, last, after] = [act("fit", "C1"), read("C2", 0.03), act("fit", "C9"), read("C2", 0.03)];
    const found = ask({ truth, acts: [first, last], readings: [between, after] });
    expect(found.minutes).toBeCloseTo(0.4, 9);
    expect(ask({ truth, acts: [first], readings: [between, after] }).minutes).toBeCloseTo(0.8, 9);
  });
  it("finds a new part that cannot stand in for the old one", () => {
    const fitted = (capacitanceFarads: number, ratedVolts: number, isReversed = false) =>
      ask({ acts: [act("fit", "C1", { fitted: { capacitanceFarads, ratedVolts, isReversed } })] }).wrongParts;
    expect(fitted(1000e-6, 25)).toEqual([]);
    expect(fitted(1000e-6, 10)).toEqual(["C1"]);
    expect(fitted(47e-6, 25)).toEqual(["C1"]);
    expect(fitted(2200e-6, 25)).toEqual(["C1"]);
    expect(fitted(1000e-6, 25, true)).toEqual(["C1"]);
  });
  it("asks for the rails under load after the last part went in, and only of a supply that was mended", () => {
    const rail = (loadAmps: number | null) =>
      sampleReading("C1", {
        ...{
          targetKind: "rail",
          targetId: "net-12",
          quantity: "dc_voltage",
          value: 12,
          isPowered: true,
          loadAmps,
          sequence: ++count,
        },
      });
    expect(ask({ readings: [] }).unproved).toEqual([]);
    const early = rail(2);
    const fit = act("fit", "C1");
    expect(ask({ acts: [fit], readings: [early] }).unproved).toEqual(["12 V"]);
    expect(ask({ acts: [fit], readings: [rail(null)] }).unproved).toEqual(["12 V"]);
    expect(ask({ acts: [fit], readings: [rail(0.4)] }).unproved).toEqual(["12 V"]);
    const done = ask({ acts: [fit], readings: [rail(2)] });
    expect(done.unproved).toEqual([]);
    expect(done.skills).toMatchObject({ proving: { good: 1, total: 1 }, choosing: { good: 1, total: 1 } });
  });
  it("takes hints and consequences off, and tells the dearest first", () => {
    const found = ask({
      acts: [act("hint", null, { hintLevel: 3, minutes: 0 })],
      events: [
        { code: "meter_killed", at: "C9" },
        { code: "fuse_blown", at: "F1" },
        { code: "not_of_ours", at: null },
      ],
    });
    expect(found.breaches.map((one) => [one.code, one.points])).toEqual([
      ["meter_killed", 50],
      ["hint_3", 6],
      ["fuse_blown", 5],
    ]);
    expect(found.score).toMatchObject({ isFatal: true, isPassed: false });
    expect(found.skills.draining).toEqual({ good: 0, total: 1 });
    expect(ask({ acts: [act("drain", "Bulk")] }).skills.draining).toEqual({ good: 1, total: 1 });
    expect(ask().skills.draining).toBeUndefined();
  });
  it("says at every reading what would have told more, and nothing where it was the best", () => {
    const found = ask({ readings: [read("C9", 0.4, "in_circuit"), read("C2", 0.05, "in_circuit")] });
    for (const step of found.steps) {
      if (step.better) expect([step.better.at, step.better.quantity]).not.toEqual([step.at, step.kind]);
    }
    expect(found.steps.some((step) => step.better !== null)).toBe(true);
  });
});

describe("the models of the lessons", () => {
  const viewAt = (code: (typeof lessonCodes)[number], more: Readonly<Record<string, number>> = {}) => {
    const { knobs, view } = lessonModels[code];
    return view({ ...Object.fromEntries(knobs.map((one) => [one.key, one.start])), ...more });
  };
  const figure = (code: (typeof lessonCodes)[number], name: string, more: Readonly<Record<string, number>> = {}) =>
    viewAt(code, more).figures.find((one) => one.code === name)?.value ?? Number.NaN;
  it.each(lessonCodes.map((code) => [code]))("%s has finite lines and figures wherever its knobs stand", (code) => {
    for (const end of ["least", "most", "start"] as const) {
      const values = Object.fromEntries(lessonModels[code].knobs.map((one) => [one.key, one[end]]));
      const { lines, figures } = lessonModels[code].view(values);
      expect(lines.flatMap((line) => line.points.flat()).every(Number.isFinite)).toBe(true);
      expect(figures.filter((one) => one.code !== "first_try_seconds").every((one) => Number.isFinite(one.value))).toBe(
        true,
      );
    }
  });
  it("show what their lessons say", () => {
    expect(figure("esr_by_frequency", "esr_100_kilohertz", { celsius: -20 })).toBeGreaterThan(
      2 * figure("esr_by_frequency", "esr_100_kilohertz"),
    );
    expect(figure("masking", "in_circuit")).toBeLessThan(0.05);
    expect(figure("leakage", "shown_microfarads", { leakDecades: 2 })).toBeGreaterThan(15);
    expect(figure("leakage", "shown_microfarads", { leakDecades: 6 })).toBeCloseTo(10, 1);
    expect(figure("unloaded", "idle_lowest_volts", { leftPercent: 20 })).toBeGreaterThan(280);
    expect(figure("unloaded", "loaded_lowest_volts", { leftPercent: 10 })).toBeLessThan(180);
    expect(figure("lamp", "glow_percent", { loadWatts: 2 })).toBeLessThan(5);
    expect(figure("lamp", "glow_percent", { loadWatts: 60, lampWatts: 40 })).toBeGreaterThan(60);
    expect(figure("draining", "seconds_to_5_volts", { ohms: 2200, microfarads: 150 })).toBeCloseTo(
      2200 * 150e-6 * Math.log(65),
      6,
    );
    expect(
      figure("heat_and_life", "years_2000", { celsius: 65 }) / figure("heat_and_life", "years_2000", { celsius: 75 }),
    ).toBeCloseTo(2, 6);
    expect(figure("one_reading", "after_percent", { priorPercent: 10, timesLikelier: 9 })).toBeCloseTo(50, 6);
    expect(figure("too_little_esr", "lost_degrees", { newOhms: 0.04 })).toBeCloseTo(0, 9);
    expect(figure("too_little_esr", "lost_degrees", { newOhms: 0.008 })).toBeGreaterThan(30);
    expect(figure("control_start", "runs_milliseconds", { leftPercent: 20 })).toBeLessThan(6);
    expect(figure("two_ripples", "bulk_volts_100_hertz", { leftPercent: 20 })).toBeGreaterThan(
      3 * figure("two_ripples", "bulk_volts_100_hertz"),
    );
    expect(figure("two_ripples", "output_volts_65_kilohertz", { outputOhms: 0.6 })).toBeGreaterThan(
      8 * figure("two_ripples", "output_volts_65_kilohertz"),
    );
    expect(figure("absorption", "at_most")).toBeGreaterThan(figure("absorption", "at_least"));
  });
});
