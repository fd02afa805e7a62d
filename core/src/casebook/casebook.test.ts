import { describe, expect, it } from "vitest";
import { ages, inspected } from "../../testing/livedParts";
import { betaInterval } from "./betaInterval";
import { inspectedSurvival } from "./inspectedSurvival";
import { discoveries, fisherHigher, placePatterns } from "./placePatterns";
import { shorterLifeProbability } from "./seriesLife";
import { type WeibullLife, weibullFit } from "./weibullFit";

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

  it("calls the shorter-lived series shorter although its parts were younger", () => {
    const weak = inspected(15_000, 3, ages(90, 3_000, 20_000, 7), 8);
    const strong = inspected(40_000, 3, ages(90, 15_000, 45_000, 9), 10);
    expect(shorterLifeProbability(weak, strong)).toBeGreaterThan(0.95);
  });
});
