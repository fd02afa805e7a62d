import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/** How a part's life was seen: its failure itself, that it still worked, or that it had failed already when looked at. */
export const lifeKinds = ["failed", "working", "found_failed"] as const;
export type LifeKind = (typeof lifeKinds)[number];

/** So many parts whose life was seen in one way at one age. */
export interface LifeRecord {
  readonly hours: number;
  readonly kind: LifeKind;
  /** Followed only from this age on; absent: from new. */
  readonly entryHours?: number;
  readonly count?: number;
}

export interface WeibullLife {
  /** Characteristic life: 63 % have failed. */
  readonly etaHours: number;
  readonly beta: number;
  readonly logLikelihood: number;
  readonly logPosterior: number;
  /** When a tenth has failed, with its bounds. */
  readonly tenPercentHours: number;
  readonly tenPercentLowHours: number;
  readonly tenPercentHighHours: number;
}

/** Nothing failed, or nothing survived: no life can be told from it. */
export type NoLife = "no_failures" | "no_survivors";

const { beta0: usualBeta, s_beta: betaSpread } = planningConstants.I;
const [lowestBeta, highestBeta, gridSteps] = [0.05, 50, 160] as const;
/** Half the square of the normal quantile of 95 %: a two-sided band of 90 %. */
const profileDrop = 1.352772;
const tenPercent = -Math.log(0.9);

/**
 * Life of a series by Weibull's distribution, from parts whose ends were seen in different ways.
 *
 *     H(t) = (t/eta)^beta,   dH = H(t) - H(entry)
 *     failed: ln beta - beta ln eta + (beta - 1) ln t - dH;   working: -dH;   found failed: ln(1 - e^-dH)
 *     maximised with the penalty -(ln beta - ln beta0)^2 / (2 s^2);   B10 = eta (-ln 0.9)^(1/beta)
 *
 * Bounds are those values of B10 at which the best over all beta lies 1.352772 below the maximum (profile, 90 %). The method
 * is solid, the weak prior on beta (3, one sigma a factor of 1.8) rough: without it fewer than five failures say nothing.
 *
 * @param records hours above 0, entry below them, whole counts from 1
 * @throws {OutOfRangeError} outside these ranges
 */
export function weibullFit(
  records: readonly LifeRecord[],
  { beta0 = usualBeta, spread = betaSpread }: { readonly beta0?: number; readonly spread?: number } = {},
): WeibullLife | NoLife {
  const model = lifeModel(records, beta0, spread);
  if (typeof model === "string") return model;
  const { scale, logPosterior, bestLogEta } = model;
  const profile = (logBeta: number) => logPosterior(logBeta, bestLogEta(logBeta));
  const logBeta = highest(profile, Math.log(lowestBeta), Math.log(highestBeta));
  const logEta = bestLogEta(logBeta);
  const beta = Math.exp(logBeta);
  const best = logPosterior(logBeta, logEta);
  const logTenPercent = logEta + Math.log(tenPercent) / beta;
  // The best over all beta where B10 is held.
  const held = (log: number) =>
    logPosteriorAt((one) => logPosterior(one, log - Math.log(tenPercent) / Math.exp(one))) - best + profileDrop;
  const bound = (direction: 1 | -1) => {
    let inner = logTenPercent;
    let step = 0.1;
    let outer = inner + direction * step;
    while (held(outer) > 0 && step < 40) {
      inner = outer;
      step *= 2;
      outer = inner + direction * step;
    }
    for (let n = 0; n < 24; n++) {
      const middle = (inner + outer) / 2;
      if (held(middle) > 0) inner = middle;
      else outer = middle;
    }
    return scale * Math.exp((inner + outer) / 2);
  };
  return {
    ...{ etaHours: scale * Math.exp(logEta), beta, logPosterior: best },
    logLikelihood: best - model.penalty(logBeta),
    tenPercentHours: scale * Math.exp(logTenPercent),
    tenPercentLowHours: bound(-1),
    tenPercentHighHours: bound(1),
  };
}

/**
 * Draws of the 10 % point from what the records leave open: the posterior over ln beta and ln eta on a grid, uniform in ln
 * eta. For comparing two series whose parts were not of one age; the grid's spacing is below the spread that it samples.
 *
 * @param random numbers from 0 to 1
 */
export function tenPercentDraws(
  records: readonly LifeRecord[],
  count: number,
  random: () => number,
): readonly number[] | NoLife {
  const model = lifeModel(records, usualBeta, betaSpread);
  if (typeof model === "string") return model;
  const { scale, logPosterior, bestLogEta } = model;
  const cells: { readonly log: number; readonly tenPercentLog: number }[] = [];
  const steps = 48;
  for (let n = 0; n <= steps; n++) {
    const logBeta = Math.log(usualBeta) + betaSpread * (-3 + (6 * n) / steps);
    const middle = bestLogEta(logBeta);
    for (let m = 0; m <= steps; m++) {
      const logEta = middle + (-3 + (6 * m) / steps) / Math.exp(logBeta / 2);
      const tenPercentLog = logEta + Math.log(tenPercent) / Math.exp(logBeta);
      // The cell's own width: the steps in ln eta narrow with beta.
      cells.push({ log: logPosterior(logBeta, logEta) - logBeta / 2, tenPercentLog });
    }
  }
  const most = Math.max(...cells.map((one) => one.log));
  const sums: number[] = [];
  let total = 0;
  for (const { log } of cells) {
    total += Math.exp(log - most);
    sums.push(total);
  }
  return Array.from({ length: count }, () => {
    const wanted = random() * total;
    let [low, high] = [0, sums.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((sums[middle] as number) < wanted) low = middle + 1;
      else high = middle;
    }
    return scale * Math.exp((cells[low] as (typeof cells)[number]).tenPercentLog);
  });
}

interface LifeModel {
  readonly scale: number;
  readonly logPosterior: (logBeta: number, logEta: number) => number;
  readonly penalty: (logBeta: number) => number;
  readonly bestLogEta: (logBeta: number) => number;
}

/** The likelihood of the records, their times scaled by the greatest. */
function lifeModel(records: readonly LifeRecord[], beta0: number, spread: number): LifeModel | NoLife {
  requirePositive("beta0", beta0);
  requirePositive("spread", spread);
  for (const { hours, entryHours = 0, count = 1 } of records) {
    requirePositive("hours", hours);
    requireNonNegative("entryHours", entryHours);
    if (entryHours >= hours) throw new OutOfRangeError("entryHours", entryHours, `before ${hours}`);
    if (!(Number.isInteger(count) && count >= 1)) throw new OutOfRangeError("count", count, "a whole number from 1");
  }
  if (!records.some((one) => one.kind !== "working")) return "no_failures";
  if (records.every((one) => one.kind === "found_failed")) return "no_survivors";
  const scale = Math.max(...records.map((one) => one.hours));
  const rows = records.map(({ hours, kind, entryHours = 0, count = 1 }) => ({
    ...{ kind, count, logTime: Math.log(hours / scale) },
    logEntry: entryHours > 0 ? Math.log(entryHours / scale) : null,
  }));
  const hazard = (row: (typeof rows)[number], beta: number) =>
    Math.exp(beta * row.logTime) - (row.logEntry === null ? 0 : Math.exp(beta * row.logEntry));
  const penalty = (logBeta: number) => -((logBeta - Math.log(beta0)) ** 2) / (2 * spread ** 2);
  return {
    scale,
    penalty,
    logPosterior: (logBeta, logEta) => {
      const beta = Math.exp(logBeta);
      let sum = penalty(logBeta);
      for (const row of rows) {
        const rise = hazard(row, beta) * Math.exp(-beta * logEta);
        if (row.kind === "found_failed") sum += row.count * Math.log(-Math.expm1(-rise));
        else sum -= row.count * rise;
        if (row.kind === "failed")
          // Times are scaled: each density keeps its unit.
          sum += row.count * (logBeta - beta * logEta + (beta - 1) * row.logTime - Math.log(scale));
      }
      return sum;
    },
    bestLogEta: (logBeta) => {
      const beta = Math.exp(logBeta);
      const hazards = rows.map((row) => hazard(row, beta));
      // Falls with lambda = eta^-beta: concave.
      const slope = (logLambda: number) => {
        const lambda = Math.exp(logLambda);
        return rows.reduce((sum, { kind, count }, n) => {
          const c = hazards[n] as number;
          if (kind === "found_failed") return sum + (count * lambda * c) / Math.expm1(lambda * c);
          return sum + (kind === "failed" ? count : 0) - count * lambda * c;
        }, 0);
      };
      let [low, high] = [-60, 60];
      // Hazards of a steep wear can be tiny: lambda goes as far the other way.
      while (slope(high) > 0 && high < 1e4) high *= 2;
      while (slope(low) < 0 && low > -1e4) low *= 2;
      for (let n = 0; n < 90; n++) {
        const middle = (low + high) / 2;
        if (slope(middle) > 0) low = middle;
        else high = middle;
      }
      return -(low + high) / 2 / beta;
    },
  };
}

const logPosteriorAt = (of: (logBeta: number) => number): number => {
  const at = highest(of, Math.log(lowestBeta), Math.log(highestBeta));
  return of(at);
};

/** Where a function is highest: by a grid, then by the golden section round its best point. */
function highest(of: (x: number) => number, from: number, to: number): number {
  let best = from;
  let most = -Infinity;
  const width = (to - from) / gridSteps;
  for (let n = 0; n <= gridSteps; n++) {
    const value = of(from + n * width);
    if (value > most) {
      most = value;
      best = from + n * width;
    }
  }
  const golden = (Math.sqrt(5) - 1) / 2;
  let [low, high] = [best - width, best + width];
  let [left, right] = [high - golden * (high - low), low + golden * (high - low)];
  let [leftValue, rightValue] = [of(left), of(right)];
  for (let n = 0; n < 40; n++) {
    if (leftValue > rightValue) {
      [high, right, rightValue] = [right, left, leftValue];
      left = high - golden * (high - low);
      leftValue = of(left);
    } else {
      [low, left, leftValue] = [left, right, rightValue];
      right = low + golden * (high - low);
      rightValue = of(right);
    }
  }
  return (low + high) / 2;
}
