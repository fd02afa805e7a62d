import { median } from "../numerics/median";
import { requireNonNegative } from "../numerics/requireRange";

/** What a closed job of the same kind took. */
export interface ClosedJob {
  readonly spentMinutes: number | null;
  readonly partsMinor: number | null;
  /** Minutes of labour in the quote that it was done by; null: none was given. */
  readonly quotedMinutes: number | null;
}

export type EstimateSource = "own_closed_jobs" | "house_rule";

export interface Estimate {
  readonly minutes: number;
  readonly partsMinor: number;
  readonly source: EstimateSource;
  /** Closed jobs of the kind that told their minutes. */
  readonly closedCount: number;
}

/** Fewer closed jobs than this tell of chance, not of the shop. */
const leastClosedJobs = 5;

export interface EstimateRules {
  readonly usualMinutes: number;
  readonly minutesPerPart: number;
  readonly usualPartMinor: number;
}

/**
 * Minutes and parts to reckon with before and while a unit is judged.
 *
 * The shop's own closed jobs of the kind, by their median, when there are at least five that told their minutes; else the
 * house rules. As soon as parts are known to go out, they count: those beyond the usual two cost their minutes more, the
 * chosen ones cost what they cost, the others the usual price. Rough; every number can be typed over.
 *
 * @throws {OutOfRangeError} negative minutes, money or counts
 */
export function repairEstimate(
  closed: readonly ClosedJob[],
  known: { readonly chosenMinor: number; readonly chosenCount: number; readonly condemnedCount: number },
  rules: EstimateRules,
): Estimate {
  for (const [key, value] of Object.entries({ ...known, ...rules })) requireNonNegative(key, value);
  const minutesTold = closed.flatMap((job) => (job.spentMinutes === null ? [] : [job.spentMinutes]));
  const hasRecord = minutesTold.length >= leastClosedJobs;
  const partsTold = closed.flatMap((job) => (job.partsMinor === null ? [] : [job.partsMinor]));
  const replaceCount = Math.max(known.condemnedCount, known.chosenCount);
  const partsKnown = known.chosenMinor + (replaceCount - known.chosenCount) * rules.usualPartMinor;
  const partsUsual = hasRecord && partsTold.length > 0 ? median(partsTold) : usualParts * rules.usualPartMinor;
  const extraMinutes = Math.max(replaceCount - usualParts, 0) * rules.minutesPerPart;
  return {
    minutes: Math.round((hasRecord ? median(minutesTold) : rules.usualMinutes) + extraMinutes),
    partsMinor: Math.round(replaceCount > 0 ? partsKnown : partsUsual),
    source: hasRecord ? "own_closed_jobs" : "house_rule",
    closedCount: minutesTold.length,
  };
}

const usualParts = 2;

/** By how much what was done ran past what was quoted. */
export interface QuoteDrift {
  /** Minutes that were spent to minutes that were quoted, by the median of the jobs. */
  readonly ratio: number;
  readonly count: number;
}

/**
 * What quotes of the kind were worth: the median of spent to quoted minutes over the closed jobs that have both.
 *
 *     drift = median(spent / quoted)
 *
 * @returns null below five such jobs: fewer tell of chance
 */
export function quoteDrift(closed: readonly ClosedJob[]): QuoteDrift | null {
  const ratios = closed.flatMap(({ spentMinutes, quotedMinutes }) =>
    spentMinutes === null || quotedMinutes === null || quotedMinutes <= 0 ? [] : [spentMinutes / quotedMinutes],
  );
  return ratios.length < leastClosedJobs ? null : { ratio: median(ratios), count: ratios.length };
}
