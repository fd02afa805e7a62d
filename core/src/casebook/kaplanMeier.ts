import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { normalQuantile } from "../numerics/normalDistribution";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/** A part that was fitted here and followed: until it failed, or until it was last known to work. */
export interface FollowedPart {
  /** Any unit of time, above 0; all rows in the same. */
  readonly time: number;
  readonly hasFailed: boolean;
  /** Followed only from here on; absent: from new. */
  readonly entry?: number;
}

export interface SurvivalStep {
  readonly time: number;
  readonly atRiskCount: number;
  readonly failedCount: number;
  readonly survivalRatio: number;
  /** null once none survives: nothing is known of its spread. */
  readonly standardError: number | null;
  readonly lowRatio: number | null;
  readonly highRatio: number | null;
}

export interface SurvivalPoint {
  readonly survivalRatio: number | null;
  readonly lowRatio: number | null;
  readonly highRatio: number | null;
}

export interface SurvivalCurve {
  readonly count: number;
  readonly failedCount: number;
  readonly steps: readonly SurvivalStep[];
  /** When a tenth has failed; null where it never came so far. */
  readonly tenPercentTime: number | null;
  readonly medianTime: number | null;
}

/**
 * Survival of parts that were followed from the day they were fitted (Kaplan and Meier, with late entries).
 *
 *     S = product over failure times of (n - d)/n,   G = sum d/(n (n - d)),   se = S sqrt(G)        (Greenwood)
 *     q = z sqrt(G)/|ln S|,   low = S^(e^q),  high = S^(e^-q)                                         (log-log)
 *
 * At risk at a time is who entered before it and had not left before it; whoever left at it still counts. Solid; an early
 * entry with nobody else at risk can drive S to 0 falsely. Not for parts that were found failed when somebody looked: that day
 * is not the day on which they failed (inspectedSurvival).
 *
 * @throws {OutOfRangeError} time not above 0, entry below 0 or not before its time, confidence outside 0..1
 */
export function kaplanMeier(
  parts: readonly FollowedPart[],
  confidence: number = planningConstants.I.conf,
): SurvivalCurve {
  if (!(confidence > 0 && confidence < 1)) throw new OutOfRangeError("confidence", confidence, "between 0 and 1");
  for (const { time, entry = 0 } of parts) {
    requirePositive("time", time);
    requireNonNegative("entry", entry);
    if (entry >= time) throw new OutOfRangeError("entry", entry, `before ${time}`);
  }
  const z = normalQuantile((1 + confidence) / 2);
  const failures = parts.filter((one) => one.hasFailed);
  const times = [...new Set(failures.map((one) => one.time))].sort((a, b) => a - b);
  let survivalRatio = 1;
  let greenwood = 0;
  const steps = times.map((time): SurvivalStep => {
    const atRiskCount = parts.filter((one) => (one.entry ?? 0) < time && time <= one.time).length;
    const failedCount = failures.filter((one) => one.time === time).length;
    survivalRatio *= (atRiskCount - failedCount) / atRiskCount;
    greenwood += failedCount / (atRiskCount * (atRiskCount - failedCount));
    const step = { time, atRiskCount, failedCount, survivalRatio };
    if (survivalRatio <= 0) return { ...step, standardError: null, lowRatio: null, highRatio: null };
    const q = (z * Math.sqrt(greenwood)) / Math.abs(Math.log(survivalRatio));
    return {
      ...step,
      standardError: survivalRatio * Math.sqrt(greenwood),
      lowRatio: survivalRatio ** Math.exp(q),
      highRatio: survivalRatio ** Math.exp(-q),
    };
  });
  const firstAt = (ratio: number) => steps.find((one) => one.survivalRatio <= ratio + 1e-12)?.time ?? null;
  return {
    ...{ count: parts.length, failedCount: failures.length, steps },
    ...{ tenPercentTime: firstAt(0.9), medianTime: firstAt(0.5) },
  };
}

/** What a curve says at a time: of its last step up to it; nothing after the last time of any part. */
export function survivalAt(curve: SurvivalCurve, parts: readonly FollowedPart[], time: number): SurvivalPoint {
  if (time > Math.max(...parts.map((one) => one.time))) return { survivalRatio: null, lowRatio: null, highRatio: null };
  const last = curve.steps.filter((one) => one.time <= time).at(-1);
  return last ?? { survivalRatio: 1, lowRatio: 1, highRatio: 1 };
}
