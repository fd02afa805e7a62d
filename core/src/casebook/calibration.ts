import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";

/** What was said, and what was later shown. */
export interface Forecast {
  readonly probability: number;
  readonly isTrue: boolean;
}

export interface CalibrationBin {
  readonly lowRatio: number;
  readonly highRatio: number;
  readonly count: number;
  readonly meanProbability: number | null;
  readonly trueRatio: number | null;
}

export interface Calibration {
  readonly bins: readonly CalibrationBin[];
  readonly brier: number;
  readonly expectedError: number;
  readonly greatestError: number;
  readonly baseRatio: number;
  /** Against whoever always says the base rate; null where that is never wrong. */
  readonly skill: number | null;
}

/**
 * How far chances that were told held, by bins of equal width.
 *
 *     bin = min(floor(p bins + 1e-9), bins - 1),  brier = mean (p - y)^2,  error = sum n_b/N |mean p - share|
 *     skill = 1 - brier / (base (1 - base))
 *
 * Solid.
 *
 * @throws {OutOfRangeError} without any, or with a chance outside 0 to 1
 */
export function calibration(forecasts: readonly Forecast[], binCount: number = planningConstants.I.bins): Calibration {
  if (forecasts.length === 0) throw new OutOfRangeError("forecasts", 0, "at least one");
  if (!(Number.isInteger(binCount) && binCount > 0))
    throw new OutOfRangeError("binCount", binCount, "a positive whole number");
  const inBins = Array.from({ length: binCount }, () => [] as Forecast[]);
  for (const one of forecasts) {
    const { probability } = one;
    if (!(probability >= 0 && probability <= 1)) throw new OutOfRangeError("probability", probability, "from 0 to 1");
    inBins[Math.min(Math.floor(probability * binCount + 1e-9), binCount - 1)]?.push(one);
  }
  const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;
  const truth = (one: Forecast) => (one.isTrue ? 1 : 0);
  const bins = inBins.map((own, n) => ({
    ...{ lowRatio: n / binCount, highRatio: (n + 1) / binCount, count: own.length },
    meanProbability: own.length === 0 ? null : mean(own.map((one) => one.probability)),
    trueRatio: own.length === 0 ? null : mean(own.map(truth)),
  }));
  const gaps = bins.flatMap(({ count, meanProbability, trueRatio }) =>
    meanProbability === null || trueRatio === null ? [] : [{ count, gap: Math.abs(meanProbability - trueRatio) }],
  );
  const brier = mean(forecasts.map((one) => (one.probability - truth(one)) ** 2));
  const baseRatio = mean(forecasts.map(truth));
  const chance = baseRatio * (1 - baseRatio);
  return {
    ...{ bins, brier, baseRatio, skill: chance === 0 ? null : 1 - brier / chance },
    expectedError: gaps.reduce((sum, { count, gap }) => sum + (count / forecasts.length) * gap, 0),
    greatestError: Math.max(...gaps.map((one) => one.gap)),
  };
}
