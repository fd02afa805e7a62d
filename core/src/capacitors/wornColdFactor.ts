import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { clamp } from "../numerics/clamp";
import { requireFinite, requirePositive } from "../numerics/requireRange";

const { wornFrom, wornColdKelvin } = tradeConstants.ripple;

/**
 * By how much more the cold raises the ESR of a worn liquid capacitor than that of a new one.
 *
 *     kR = a + (1 - a) exp(-(T - 20) / E),  E from 27 K as new down to 15 K at five times the ESR;  factor = kR(E) / kR(27 K)
 *
 * What has lost its solvent thickens sooner. Rough; 1 from 20 degrees on, and for what is not worn. Held at the end of the
 * table of the cold, like the factor of new parts.
 *
 * @param wearRatio ESR as read over that of a new one at the same frequency and temperature
 */
export function wornColdFactor(wearRatio: number, temperatureCelsius: number): number {
  const { kT_a: a, kT_E, kT_min_C, T_ref_C } = judgementConstants.A;
  const ratio = requirePositive("wearRatio", wearRatio);
  const celsius = Math.max(requireFinite("temperatureCelsius", temperatureCelsius), kT_min_C);
  if (celsius >= T_ref_C || ratio <= 1) return 1;
  const worn = clamp(Math.log(ratio) / Math.log(wornFrom), 0, 1);
  const kelvin = kT_E + (wornColdKelvin - kT_E) * worn;
  const at = (scale: number) => a + (1 - a) * Math.exp(-(celsius - T_ref_C) / scale);
  return at(kelvin) / at(kT_E);
}
