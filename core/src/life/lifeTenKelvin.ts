import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { requireFinite, requirePositive } from "../numerics/requireRange";

export interface ExpectedLife {
  readonly lifeHours: number;
  /** Not more than 15 years: seals dry out and the law is unproved beyond. Print this one. */
  readonly cappedLifeHours: number;
}

/** The catalogue's endurance statement and the place where the part works. */
export interface LifeRating {
  readonly ratedLifeHours: number;
  readonly ratedTemperatureCelsius: number;
  readonly ambientCelsius: number;
}

/**
 * Ten-kelvin rule, ripple ignored.
 *
 *     L = L0 2^((T0 - Ta) / 10)
 *
 * Solid between 40 and 105 degrees C. An ambient above the rated temperature is computed; the caller should warn.
 *
 * @throws {OutOfRangeError} rated life not above 0, temperatures not finite
 * @example lifeByTenKelvinRule({ ratedLifeHours: 2000, ratedTemperatureCelsius: 105, ambientCelsius: 65 }) // 32000 h
 */
export function lifeByTenKelvinRule(
  rating: LifeRating,
  constants: JudgementConstants["D"] = judgementConstants.D,
): ExpectedLife {
  requirePositive("ratedLifeHours", rating.ratedLifeHours);
  requireFinite("ratedTemperatureCelsius", rating.ratedTemperatureCelsius);
  requireFinite("ambientCelsius", rating.ambientCelsius);
  const lifeHours = rating.ratedLifeHours * 2 ** ((rating.ratedTemperatureCelsius - rating.ambientCelsius) / 10);
  return { lifeHours, cappedLifeHours: Math.min(lifeHours, constants.cap_h) };
}
