import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

const defaults = planningConstants.K;

export interface ScoredItem {
  /** What was said: the chance that it is bad. */
  readonly badProbability: number;
  readonly isBad: boolean;
}

export interface ScoreWeights {
  readonly brier: number;
  readonly log: number;
  readonly time: number;
}

export interface ScoreQuestion {
  readonly items: readonly ScoredItem[];
  readonly minutes: number;
  readonly bestMinutes: number;
  readonly weights: ScoreWeights;
  /** Points that each breach costs. */
  readonly penalties: Readonly<Record<string, number>>;
  readonly violations?: readonly { readonly code: string; readonly count: number }[];
  /** So many times the best minutes count for nothing. */
  readonly slackRatio?: number;
  readonly passMark?: number;
  /** A breach of so many points is no matter of points. */
  readonly fatalPoints?: number;
}

export interface PracticeScore {
  readonly brier: number;
  readonly logLoss: number;
  readonly brierScore: number;
  readonly logScore: number;
  readonly timeScore: number;
  readonly raw: number;
  readonly penalty: number;
  /** 0 to 100. */
  readonly total: number;
  readonly isFatal: boolean;
  readonly isPassed: boolean;
}

/**
 * Score of a practice supply: what was said of each part against what is true, and the minutes against the best way.
 *
 *     brier = mean (p - bad)^2,  log loss = -mean ln clamp(p of what was true)
 *     s_brier = max(0, 1 - brier / 0.25),  s_log = max(0, 1 - log loss / ln 2):  a coin scores 0
 *     s_time = clamp((slack best - minutes) / ((slack - 1) best), 0, 1)
 *     total = clamp(100 weighted mean - sum of penalties, 0, 100)
 *
 * Both scores are proper: nobody gains by saying other than what he holds. Convention (G. W. Brier, Monthly Weather Review 78,
 * 1950; I. J. Good, Journal of the Royal Statistical Society B 14, 1952).
 *
 * @throws {OutOfRangeError} without items, a chance outside 0 to 1, minutes that are not above 0, weights below 0 or without any,
 * a breach that has no penalty
 */
export function practiceScore(question: ScoreQuestion): PracticeScore {
  const { items, minutes, bestMinutes, weights, penalties, violations = [] } = question;
  const { slackRatio = defaults.slack, passMark = defaults.pass_mark, fatalPoints = defaults.fatal_points } = question;
  if (items.length === 0) throw new OutOfRangeError("items", 0, "at least one");
  for (const { badProbability: p } of items) {
    if (!(p >= 0 && p <= 1)) throw new OutOfRangeError("badProbability", p, "from 0 to 1");
  }
  requirePositive("minutes", minutes);
  requirePositive("bestMinutes", bestMinutes);
  requirePositive("fatalPoints", fatalPoints);
  if (!(slackRatio > 1)) throw new OutOfRangeError("slackRatio", slackRatio, "above 1");
  if (!(passMark >= 0 && passMark <= 100)) throw new OutOfRangeError("passMark", passMark, "from 0 to 100");
  for (const [name, weight] of Object.entries(weights)) requireNonNegative(`weights.${name}`, weight);
  const weightSum = weights.brier + weights.log + weights.time;
  requirePositive("weights", weightSum);
  for (const [code, points] of Object.entries(penalties)) requireNonNegative(`penalties.${code}`, points);
  const mean = (of: (item: ScoredItem) => number) => items.reduce((sum, item) => sum + of(item), 0) / items.length;
  const brier = mean(({ badProbability: p, isBad }) => (p - Number(isBad)) ** 2);
  const clip = defaults.log_clip;
  const logLoss = -mean(({ badProbability: p, isBad }) =>
    Math.log(Math.min(Math.max(isBad ? p : 1 - p, clip), 1 - clip)),
  );
  const brierScore = Math.max(0, 1 - brier / defaults.brier_coin);
  const logScore = Math.max(0, 1 - logLoss / Math.LN2);
  const timeScore = Math.min(Math.max((slackRatio * bestMinutes - minutes) / ((slackRatio - 1) * bestMinutes), 0), 1);
  const raw = (100 * (weights.brier * brierScore + weights.log * logScore + weights.time * timeScore)) / weightSum;
  const points = violations.map(({ code, count }) => {
    const each = Object.hasOwn(penalties, code) ? penalties[code] : undefined;
    if (each === undefined) throw new OutOfRangeError("violations", Number.NaN, `known: ${code}`);
    if (!Number.isInteger(count) || count < 0) throw new OutOfRangeError("count", count, "whole, from 0");
    return { each, count };
  });
  const penalty = points.reduce((sum, { each, count }) => sum + each * count, 0);
  const total = Math.min(Math.max(raw - penalty, 0), 100);
  const isFatal = points.some(({ each, count }) => count > 0 && each >= fatalPoints);
  return {
    ...{ brier, logLoss, brierScore, logScore, timeScore, raw, penalty, total, isFatal },
    isPassed: !isFatal && total >= passMark - 1e-9,
  };
}
