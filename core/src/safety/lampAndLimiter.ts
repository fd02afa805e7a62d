import { tradeConstants } from "../constants/tradeConstants";
import { lampFromRating } from "../discharge/drainPath";
import { requirePositive } from "../numerics/requireRange";

const {
  leastSeriesLampWatts,
  usableLampShare,
  largestLampWatts,
  largestLampUpToWatts,
  limiterMarginRatio,
  leastLimitAmps,
  usualEfficiencyRatio,
  usualPowerFactorRatio,
  correctedPowerFactorRatio,
  bulkFeedShare,
  leastBulkFeedAmps,
  dcFeedStartShare,
  leastDcFeedAmps,
} = tradeConstants.safety;

/** Lamps that can be had, in watts. */
const commonLampWatts = [25, 40, 60, 75, 100, 150, 200];

export interface SeriesLamp {
  readonly lampWatts: number;
  /** A larger one would follow from the rating, and limits less than a first power-up without load needs. */
  readonly isCapped: boolean;
  /** What flows into a dead short: the lamp at its rating. */
  readonly shortCircuitAmpsRms: number;
  /** Peak into an empty bulk through the cold filament. */
  readonly coldPeakAmps: number;
  /** The unit can draw about this much before the lamp starves it: a quarter of its rating. */
  readonly usableWatts: number;
}

/**
 * A series lamp for a first power-up without load: the smallest common lamp that is not below what the unit gives (at least
 * 40 W, so that a standby can start), at most 100 W up to a unit of 400 W and 200 W beyond, because a smaller one starves a
 * sound supply and a larger one limits too little. Usual bench practice, rough; a lamp limits and does not isolate.
 *
 * @param outputWatts what the unit gives at its rating, not what its label draws
 * @throws {OutOfRangeError} rating or mains not above 0
 */
export function seriesLampFor(outputWatts: number, mainsVoltsRms: number): SeriesLamp {
  requirePositive("outputWatts", outputWatts);
  requirePositive("mainsVoltsRms", mainsVoltsRms);
  const largest = outputWatts <= largestLampUpToWatts ? largestLampWatts : Number.POSITIVE_INFINITY;
  const wanted = Math.max(outputWatts, leastSeriesLampWatts);
  const allowed = commonLampWatts.filter((watts) => watts <= largest);
  const fitting = allowed.find((watts) => watts >= wanted);
  const lampWatts = fitting ?? (allowed.at(-1) as number);
  const lamp = lampFromRating(mainsVoltsRms, lampWatts);
  return {
    lampWatts,
    isCapped: fitting === undefined,
    shortCircuitAmpsRms: lampWatts / mainsVoltsRms,
    coldPeakAmps: (Math.SQRT2 * mainsVoltsRms) / lamp.coldOhms,
    usableWatts: lampWatts * usableLampShare,
  };
}

export interface LimiterSetting {
  /** Trip or fold-back current on the mains side. */
  readonly tripAmpsRms: number;
  /** Limit of a d.c. supply that feeds the bulk instead of the mains. */
  readonly bulkFeedAmps: number;
}

/**
 * Setting of an electronic limiter as the alternative to a lamp: half again the mains current at the rating,
 *
 *     I = 1.5 * P_out / (0.85 * PF * V)    PF 0.6, with a boost stage 0.95
 *
 * For a current-limited d.c. feed of the bulk a tenth of that power is enough to see a converter start unloaded. Usual
 * bench practice, rough; a limiter isolates as little as a lamp.
 *
 * @throws {OutOfRangeError} rating or mains not above 0
 */
export function limiterFor(outputWatts: number, mainsVoltsRms: number, hasBoostStage: boolean): LimiterSetting {
  const drawn = requirePositive("outputWatts", outputWatts) / usualEfficiencyRatio;
  const volts = requirePositive("mainsVoltsRms", mainsVoltsRms);
  const powerFactor = hasBoostStage ? correctedPowerFactorRatio : usualPowerFactorRatio;
  return {
    tripAmpsRms: Math.max((limiterMarginRatio * drawn) / (powerFactor * volts), leastLimitAmps),
    bulkFeedAmps: Math.max((bulkFeedShare * drawn) / (Math.SQRT2 * volts), leastBulkFeedAmps),
  };
}

export interface DcFeed {
  /** Current limit for the first try, without load. */
  readonly startAmps: number;
  /** What the unit draws at its rating: the limit is never set above it. */
  readonly fullAmps: number;
}

/**
 * Current limit of a bench supply for a unit that is fed with d.c.: a tenth of what it draws whole, then no more than the
 * whole.
 *
 * @throws {OutOfRangeError} rating or volts not above 0
 */
export function dcFeedFor(outputWatts: number, inputVolts: number): DcFeed {
  const watts = requirePositive("outputWatts", outputWatts) / usualEfficiencyRatio;
  const fullAmps = watts / requirePositive("inputVolts", inputVolts);
  return { startAmps: Math.min(Math.max(dcFeedStartShare * fullAmps, leastDcFeedAmps), fullAmps), fullAmps };
}
