import { describe, expect, it } from "vitest";
import { seededRandom } from "../numerics/seededRandom";
import { betaInterval } from "./betaInterval";
import { inspectedSurvival } from "./inspectedSurvival";
import { discoveries, fisherHigher, placePatterns } from "./placePatterns";
import { type SeriesPart, seriesLife, shorterLifeProbability } from "./seriesLife";
import { type WeibullLife, weibullFit } from "./weibullFit";

/** Parts of a Weibull life, each looked at once: the truth is made here and not by what is judged. */
function inspected(etaHours: number, beta: number, ages: readonly number[], seed: number): readonly SeriesPart[] {
  const random = seededRandom(seed);
  return ages.map((hours) => {
    const lifeHours = etaHours * (-Math.log(1 - random())) ** (1 / beta);
    return { hours, origin: "found" as const, hasFailed: lifeHours <= hours };
  });
}
const ages = (count: number, from: number, to: number, seed: number) => {
  const random = seededRandom(seed);
  return Array.from({ length: count }, () => from + random() * (to - from));
};

describe("a share that was counted", () => {
  it("has Jeffreys' interval: 6 of 24 lie between 11.2 and 44.4 %", () => {
    const { lowRatio, highRatio } = betaInterval(6, 24, { confidence: 0.95 });
    expect(100 * lowRatio).toBeCloseTo(11.17, 1);
    expect(100 * highRatio).toBeCloseTo(44.45, 1);
  });

  it("is not told below the fewest, and stands out only where its like elsewhere fails more seldom", () => {
    const place = (failedCount: number, seenCount: number, otherFailedCount: number) => ({
      ...{ place: "C21", failedCount, seenCount, otherFailedCount, otherSeenCount: 200 },
    });
    const [few, plain, weak] = placePatterns([place(2, 3, 20), place(3, 24, 20), place(14, 24, 20)], 5);
    expect([few?.share, few?.standsOut]).toEqual([null, false]);
    expect([plain?.share !== null, plain?.standsOut]).toEqual([true, false]);
    expect(weak?.standsOut).toBe(true);
  });

  it("is weighed by Fisher's exact test: 3 of 4 against 1 of 4 is 17 of 70", () => {
    expect(fisherHigher(3, 4, 1, 4)).toBeCloseTo(17 / 70, 10);
    expect(fisherHigher(0, 4, 4, 4)).toBeCloseTo(1, 10);
  });

  it("finds nothing among twenty places of which one is small by chance", () => {
    const chances = Array.from({ length: 20 }, (_, n) => (n === 0 ? 0.04 : 0.5));
    expect(discoveries(chances, 0.05)).not.toContain(true);
    expect(discoveries([0.001, ...chances.slice(1)], 0.05)[0]).toBe(true);
  });
});

describe("the life of a series", () => {
  it("by parts that were looked at once: 24 at 20,000 h of which 6 had failed, beta held to 4", () => {
    const life = weibullFit(
      [
        { hours: 20_000, kind: "found_failed", count: 6 },
        { hours: 20_000, kind: "working", count: 18 },
      ],
      { beta0: 4, spread: 1e-3 },
    ) as WeibullLife;
    expect(life.etaHours).toBeCloseTo(27_309, -1);
  });

  it("lies within its band in nine of ten shops, whose parts lived by another's dice", () => {
    const truth = 22_000 * 0.10536 ** (1 / 3);
    const held = Array.from({ length: 30 }, (_, n) => {
      const parts = inspected(22_000, 3, ages(80, 4_000, 40_000, 100 + n), n);
      const life = seriesLife(parts, 5).life as WeibullLife;
      return life.tenPercentLowHours <= truth && truth <= life.tenPercentHighHours;
    }).filter(Boolean).length;
    expect(held / 30).toBeGreaterThan(0.8);
  });

  it("by ages, falls and never rises; sound parts count, and found failed is not failed today", () => {
    const points = inspectedSurvival([
      { hours: 10_000, hasFailed: true },
      { hours: 20_000, hasFailed: false },
      { hours: 30_000, hasFailed: true },
      { hours: 40_000, hasFailed: true },
    ]);
    // The two first are pooled: one of two had failed by then.
    expect(points.map((one) => one.survivalRatio)).toEqual([0.5, 0.5, 0, 0]);
    const wide = inspectedSurvival(inspected(22_000, 3, ages(300, 2_000, 45_000, 3), 4));
    const at = wide.filter((one) => one.hours <= 22_000).at(-1);
    expect(at?.survivalRatio).toBeGreaterThan(0.2);
    expect(at?.survivalRatio).toBeLessThan(0.55);
    expect(at?.lowRatio).toBeLessThan(at?.survivalRatio as number);
  });

  it("calls the shorter-lived series shorter although its parts were younger, and does not tell alike ones apart", () => {
    const weak = inspected(15_000, 3, ages(90, 3_000, 20_000, 7), 8);
    const strong = inspected(40_000, 3, ages(90, 15_000, 45_000, 9), 10);
    expect(shorterLifeProbability(weak, strong)).toBeGreaterThan(0.95);
    const alike = Array.from({ length: 20 }, (_, n) =>
      shorterLifeProbability(
        inspected(25_000, 3, ages(60, 3_000, 20_000, 20 + n), 40 + n),
        inspected(25_000, 3, ages(60, 15_000, 45_000, 60 + n), 80 + n),
      ),
    );
    const called = alike.filter((chance) => chance !== null && (chance > 0.95 || chance < 0.05)).length;
    expect(called).toBeLessThanOrEqual(4);
  });
});
