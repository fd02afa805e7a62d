import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";
import { type ExpectedLife, type LifeRating, lifeByTenKelvinRule } from "./lifeTenKelvin";

/** Kelvin of ripple heating that halve the life: 10, 5, or 10 below and 5 above rated ripple. */
export type RippleHeatingSchool = 5 | 10 | "split";

export interface RippleLifeRating extends LifeRating {
  readonly rippleAmpsRms: number;
  /** At the same frequency as the ripple. */
  readonly ratedRippleAmpsRms: number;
  readonly ratedCoreRiseKelvin: number;
  readonly school: RippleHeatingSchool;
  /** Whether the endurance was specified with rated ripple or with d.c. only. */
  readonly specification?: "ripple" | "dc";
  /** Kelvin that make the life ten times longer, where a part follows that law instead: 20 for solid polymer. */
  readonly decadeKelvin?: number;
}

/**
 * Ten-kelvin rule with heating by ripple.
 *
 *     dT = dT0 (I/Ir)^2,  L = L0 2^((T0 - Ta)/10) 2^((dT0 - dT)/A)
 *
 * A solid polymer does not dry: L = L0 10^((T0 - Ta + dT0 - dT) / 20), as its sheets have it; its end is a short.
 *
 * With a d.c. specification the dT0 credit falls away. `split` takes A = 10 up to rated ripple and 5 above: continuous
 * there, strict only in overload. Usual.
 *
 * @throws {OutOfRangeError} for `split` with a d.c. specification (it would jump), rated values not above 0
 */
export function lifeWithRippleHeating(
  rating: RippleLifeRating,
  constants: JudgementConstants["D"] = judgementConstants.D,
): ExpectedLife & { readonly coreRiseKelvin: number } {
  const specification = rating.specification ?? "ripple";
  if (rating.school === "split" && specification === "dc") {
    throw new OutOfRangeError("school", rating.school, "5 or 10 for a d.c. specification");
  }
  const load =
    (requireNonNegative("rippleAmpsRms", rating.rippleAmpsRms) /
      requirePositive("ratedRippleAmpsRms", rating.ratedRippleAmpsRms)) **
    2;
  const coreRiseKelvin = requireNonNegative("ratedCoreRiseKelvin", rating.ratedCoreRiseKelvin) * load;
  const halvingKelvin = rating.school === "split" ? (load <= 1 ? 10 : 5) : rating.school;
  const credit = specification === "ripple" ? rating.ratedCoreRiseKelvin : 0;
  if (rating.decadeKelvin !== undefined) {
    const cooler = rating.ratedTemperatureCelsius - rating.ambientCelsius + credit - coreRiseKelvin;
    const hours = requirePositive("ratedLifeHours", rating.ratedLifeHours);
    const lifeHours = hours * 10 ** (cooler / requirePositive("decadeKelvin", rating.decadeKelvin));
    return { coreRiseKelvin, lifeHours, cappedLifeHours: Math.min(lifeHours, constants.cap_h) };
  }
  const ambient = lifeByTenKelvinRule(rating, constants).lifeHours;
  const lifeHours = ambient * 2 ** ((credit - coreRiseKelvin) / halvingKelvin);
  return { coreRiseKelvin, lifeHours, cappedLifeHours: Math.min(lifeHours, constants.cap_h) };
}
