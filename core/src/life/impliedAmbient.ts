import { requirePositive } from "../numerics/requireRange";

/** Of what a part lived through until it was found dead, so much came before it failed. Rough. */
const unnoticedShare = 0.25;
const daysOfYear = 365;

/**
 * The air around a part that its own death implies, were it worn out by heat alone: the best thermometer that a bench has.
 *
 *     t = years x hours a day x 365;  T = T0 - 10 log2(t / L0)
 *
 * An upper bound of the time (it was dead before anyone noticed) makes it a lower bound of the temperature; a quarter less time is
 * 4 K more. Valid only where it dried, is original, its hours are told and its series is not known bad; `driedOut` says so.
 *
 * @returns the temperature, and that with a quarter of the time taken off
 * @throws {OutOfRangeError} years, hours or rated life not above 0
 */
export function impliedAmbientCelsius(part: {
  readonly ratedLifeHours: number;
  readonly ratedTemperatureCelsius: number;
  readonly years: number;
  readonly hoursPerDay: number;
}): { readonly celsius: number; readonly highCelsius: number } {
  const hours = requirePositive("years", part.years) * requirePositive("hoursPerDay", part.hoursPerDay) * daysOfYear;
  const at = (lived: number) =>
    part.ratedTemperatureCelsius - 10 * Math.log2(lived / requirePositive("ratedLifeHours", part.ratedLifeHours));
  return { celsius: at(hours), highCelsius: at((1 - unnoticedShare) * hours) };
}
