import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { clamp } from "../numerics/clamp";
import { requireFinite } from "../numerics/requireRange";
import { type CapacitorClass, hasPolymer } from "./capacitorClass";

/**
 * How the electrolyte's series resistance changes with temperature, against 20 degrees C.
 *
 *     kR = a + (1 - a) exp(-(T - 20) / E)
 *
 * Polymer: always 1. Outside -10 to 105 degrees C the end value is returned and `isClamped` warns: below -10 the real
 * resistance rises faster. Usual from 0 to 85 degrees C, rough outside.
 *
 * @param temperatureCelsius above -273.15
 * @throws {OutOfRangeError} at or below absolute zero, or not finite
 */
export function seriesResistanceTemperatureFactor(
  temperatureCelsius: number,
  capacitorClass: CapacitorClass = "gp",
  constants: JudgementConstants["A"] = judgementConstants.A,
): { readonly factorRatio: number; readonly isClamped: boolean } {
  requireFinite("temperatureCelsius", temperatureCelsius);
  if (temperatureCelsius <= -273.15) {
    throw new OutOfRangeError("temperatureCelsius", temperatureCelsius, "above absolute zero");
  }
  if (hasPolymer(capacitorClass)) return { factorRatio: 1, isClamped: false };
  const clamped = clamp(temperatureCelsius, constants.kT_min_C, constants.kT_max_C);
  const a = constants.kT_a;
  return {
    factorRatio: a + (1 - a) * Math.exp(-(clamped - constants.T_ref_C) / constants.kT_E),
    isClamped: clamped !== temperatureCelsius,
  };
}
