import { tradeConstants } from "../constants/tradeConstants";
import { lampFromRating } from "../discharge/drainPath";
import { requirePositive } from "../numerics/requireRange";

const {
  leastSeriesLampWatts,
  usableLampShare,
  limiterMarginRatio,
  leastLimitAmps,
  usualEfficiencyRatio,
  usualPowerFactorRatio,
  bulkFeedShare,
  leastBulkFeedAmps,
} = tradeConstants.safety;

/** Lamps that can be had, in watts. */
const commonLampWatts = [25, 40, 60, 75, 100, 150, 200];

export interface SeriesLamp {
  readonly lampWatts: number;
  /** What flows into a dead short: the lamp at its rating. */
  readonly shortCircuitAmpsRms: number;
  /** Peak into an empty bulk through the cold filament. */
  readonly coldPeakAmps: number;
  /** The unit can draw about this much before the lamp starves it: a quarter of its rating. */
  readonly usableWatts: number;
}

/**
 * A series lamp for a first power-up: the smallest common lamp that is not below the unit's rating (at least 40 W, so
 * that a standby can start), because a smaller one starves a sound supply and a much larger one limits too little.
 * Usual bench practice, rough; a lamp limits and does not isolate.
 *
 * @throws {OutOfRangeError} rating or mains not above 0
 */
export function seriesLampFor(unitWatts: number, mainsVoltsRms: number): SeriesLamp {
  requirePositive("unitWatts", unitWatts);
  requirePositive("mainsVoltsRms", mainsVoltsRms);
  const wanted = Math.max(unitWatts, leastSeriesLampWatts);
  const lampWatts = commonLampWatts.find((watts) => watts >= wanted) ?? (commonLampWatts.at(-1) as number);
  const lamp = lampFromRating(mainsVoltsRms, lampWatts);
  return {
    lampWatts,
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
 * Setting of an electronic limiter as the alternative to a lamp: half again the current at the rating, without power
 * factor correction (0.6) for the mains side; for a current-limited d.c. feed of the bulk a tenth of that power is enough
 * to see a converter start unloaded. Usual bench practice, rough; a limiter isolates as little as a lamp.
 *
 * @throws {OutOfRangeError} rating or mains not above 0
 */
export function limiterFor(unitWatts: number, mainsVoltsRms: number): LimiterSetting {
  const drawn = requirePositive("unitWatts", unitWatts) / usualEfficiencyRatio;
  const volts = requirePositive("mainsVoltsRms", mainsVoltsRms);
  return {
    tripAmpsRms: Math.max((limiterMarginRatio * drawn) / (usualPowerFactorRatio * volts), leastLimitAmps),
    bulkFeedAmps: Math.max((bulkFeedShare * drawn) / (Math.SQRT2 * volts), leastBulkFeedAmps),
  };
}
