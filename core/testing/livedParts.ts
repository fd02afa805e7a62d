import type { SeriesPart } from "../src/casebook/seriesLife";
import { seededRandom } from "../src/numerics/seededRandom";

/** Parts of a Weibull life, each looked at once: the truth is made here and not by what is judged. */
export function inspected(
  etaHours: number,
  beta: number,
  ages: readonly number[],
  seed: number,
): readonly SeriesPart[] {
  const random = seededRandom(seed);
  return ages.map((hours) => {
    const lifeHours = etaHours * (-Math.log(1 - random())) ** (1 / beta);
    return { hours, origin: "found" as const, hasFailed: lifeHours <= hours };
  });
}
export const ages = (count: number, from: number, to: number, seed: number) => {
  const random = seededRandom(seed);
  return Array.from({ length: count }, () => from + random() * (to - from));
};
