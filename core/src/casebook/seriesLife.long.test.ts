import { expect, it } from "vitest";
import { ages, inspected } from "../../testing/livedParts";
import { seriesLife, shorterLifeProbability } from "./seriesLife";
import type { WeibullLife } from "./weibullFit";

it("the life of a series lies within its band in nine of ten shops, whose parts lived by another's dice", () => {
  const truth = 22_000 * 0.10536 ** (1 / 3);
  const held = Array.from({ length: 30 }, (_, n) => {
    const parts = inspected(22_000, 3, ages(80, 4_000, 40_000, 100 + n), n);
    const life = seriesLife(parts, 5).life as WeibullLife;
    return life.tenPercentLowHours <= truth && truth <= life.tenPercentHighHours;
  }).filter(Boolean).length;
  expect(held / 30).toBeGreaterThan(0.8);
});

it("series that live alike are seldom told apart", () => {
  const alike = Array.from({ length: 20 }, (_, n) =>
    shorterLifeProbability(
      inspected(25_000, 3, ages(60, 3_000, 20_000, 20 + n), 40 + n),
      inspected(25_000, 3, ages(60, 15_000, 45_000, 60 + n), 80 + n),
    ),
  );
  const called = alike.filter((chance) => chance !== null && (chance > 0.95 || chance < 0.05)).length;
  expect(called).toBeLessThanOrEqual(4);
});
