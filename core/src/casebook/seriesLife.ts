import { tradeConstants } from "../constants/tradeConstants";
import { seededRandom } from "../numerics/seededRandom";
import { type BetaInterval, betaInterval } from "./betaInterval";
import { type InspectedPoint, inspectedSurvival } from "./inspectedSurvival";
import { kaplanMeier, type SurvivalCurve } from "./kaplanMeier";
import { type LifeRecord, type NoLife, tenPercentDraws, type WeibullLife, weibullFit } from "./weibullFit";

const { lifeDraws } = tradeConstants.casebook;

/** A part of a series as a closed job had it: found there, or fitted here and followed since. */
export interface SeriesPart {
  readonly hours: number;
  /** `found`: looked at once, at its age; `fitted`: followed from new, until it failed or was last known to work. */
  readonly origin: "found" | "fitted";
  readonly hasFailed: boolean;
}

export interface SeriesLife {
  readonly foundCount: number;
  readonly foundFailedCount: number;
  readonly fittedCount: number;
  readonly fittedFailedCount: number;
  /** Of those found; null below the house's fewest. */
  readonly share: BetaInterval | null;
  /** Of parts found on boards, by age. */
  readonly inspected: readonly InspectedPoint[];
  /** Of parts that were fitted here and followed; null without any. */
  readonly followed: SurvivalCurve | null;
  /** Both together. */
  readonly life: WeibullLife | NoLife;
}

/** Ages are held to this many hours: finer they were never known. */
const hoursStep = 250;
const rounded = (hours: number) => Math.max(Math.round(hours / hoursStep), 1) * hoursStep;

/**
 * How long a series lives, by what closed jobs saw of it. A part that was found failed had failed some time before, a sound one
 * counts for its whole age, one that was fitted here is followed from new: each in its own way.
 *
 * @param fewestCount below it shares are not told
 * @see inspectedSurvival, kaplanMeier, weibullFit
 */
export function seriesLife(parts: readonly SeriesPart[], fewestCount: number): SeriesLife {
  const found = parts.filter((one) => one.origin === "found");
  const fitted = parts.filter((one) => one.origin === "fitted");
  const failed = (list: readonly SeriesPart[]) => list.filter((one) => one.hasFailed).length;
  return {
    ...{ foundCount: found.length, foundFailedCount: failed(found) },
    ...{ fittedCount: fitted.length, fittedFailedCount: failed(fitted) },
    share: found.length >= fewestCount ? betaInterval(failed(found), found.length) : null,
    inspected: inspectedSurvival(found.map(({ hours, hasFailed }) => ({ hours: rounded(hours), hasFailed }))),
    followed: fitted.length > 0 ? kaplanMeier(fitted.map(({ hours: time, hasFailed }) => ({ time, hasFailed }))) : null,
    life: weibullFit(lifeRecords(parts)),
  };
}

/** The parts as the fit takes them, those alike together. */
export function lifeRecords(parts: readonly SeriesPart[]): readonly LifeRecord[] {
  const counts = new Map<string, LifeRecord & { readonly count: number }>();
  for (const { hours, origin, hasFailed } of parts) {
    const kind = !hasFailed ? "working" : origin === "found" ? "found_failed" : "failed";
    const own = rounded(hours);
    const key = `${kind} ${own}`;
    counts.set(key, { hours: own, kind, count: (counts.get(key)?.count ?? 0) + 1 });
  }
  return [...counts.values()];
}

/**
 * Chance that the first of two series lives shorter: that its 10 % point lies below the other's, by draws from what the records
 * of each leave open (seeded, 2000). Other than a comparison of shares it does not take the older parts for the worse ones.
 *
 * @returns null where of one of them no life can be told
 */
export function shorterLifeProbability(
  first: readonly SeriesPart[],
  second: readonly SeriesPart[],
  seed = 1,
): number | null {
  const random = seededRandom(seed);
  const one = tenPercentDraws(lifeRecords(first), lifeDraws, random);
  const two = tenPercentDraws(lifeRecords(second), lifeDraws, random);
  if (typeof one === "string" || typeof two === "string") return null;
  return one.filter((hours, n) => hours < (two[n] as number)).length / lifeDraws;
}
