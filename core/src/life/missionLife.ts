import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";
import { lifeWithRippleHeating, type RippleLifeRating } from "./lifeWithRipple";

/** Hours of a day with the same surroundings and ripple. */
export interface MissionSegment {
  readonly hours: number;
  readonly ambientCelsius: number;
  readonly rippleAmpsRms: number;
}

export interface MissionLife {
  /** Share of the life that one day uses up. */
  readonly damagePerDay: number;
  readonly lifeDays: number;
  readonly lifeYears: number;
  /** Not more than 15 years: print this one. */
  readonly cappedLifeYears: number;
  /** What each segment takes of the damage, in the order given; the time off, where it counts, comes last. */
  readonly shares: readonly number[];
}

const hoursOfDay = 24;
const daysOfYear = 365.25;
/** The cap of the constants is 15 years in hours of common years. */
const hoursOfCommonYear = 8760;

/**
 * Life over a day of several loads, by linear summing of damage (Miner).
 *
 *     damage a day = sum(hours_k / L_k),  life = 1 / damage
 *
 * L_k from the ripple-heated ten-kelvin rule. Time off counts without ripple at its own temperature where one is given,
 * else it costs nothing. Usual.
 *
 * @param offAmbientCelsius null: the rest of the day costs nothing
 * @throws {OutOfRangeError} no segments, hours not above 0 or together above 24, and what the life model refuses
 */
export function missionLife(
  rating: Omit<RippleLifeRating, "ambientCelsius" | "rippleAmpsRms">,
  segments: readonly MissionSegment[],
  offAmbientCelsius: number | null,
  constants: JudgementConstants["D"] = judgementConstants.D,
): MissionLife {
  if (segments.length === 0) throw new OutOfRangeError("segments", segments, "at least one segment");
  const hours = segments.reduce((sum, one) => sum + requirePositive("hours", one.hours), 0);
  if (hours > hoursOfDay * (1 + 1e-12)) throw new OutOfRangeError("hours", hours, "not more than 24 together");
  const offHours = hoursOfDay - hours;
  const off =
    offAmbientCelsius !== null && offHours > 0
      ? [{ hours: offHours, ambientCelsius: offAmbientCelsius, rippleAmpsRms: 0 }]
      : [];
  const damages = [...segments, ...off].map(
    ({ hours: each, ambientCelsius, rippleAmpsRms }) =>
      each / lifeWithRippleHeating({ ...rating, ambientCelsius, rippleAmpsRms }, constants).lifeHours,
  );
  const damagePerDay = damages.reduce((sum, one) => sum + one, 0);
  const lifeDays = 1 / damagePerDay;
  const lifeYears = lifeDays / daysOfYear;
  return {
    damagePerDay,
    lifeDays,
    lifeYears,
    cappedLifeYears: Math.min(lifeYears, constants.cap_h / hoursOfCommonYear),
    shares: damages.map((one) => one / damagePerDay),
  };
}
