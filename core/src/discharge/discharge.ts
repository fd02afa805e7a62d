import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { requirePositive } from "../numerics/requireRange";

/** hazardous: above the usual 60 V d.c. touch limit; below_elv: under it; at_target: under the shop's target. */
export type ChargeHazard = "hazardous" | "below_elv" | "at_target";

export interface Discharge {
  readonly storedJoules: number;
  readonly removedJoules: number;
  readonly durationSeconds: number;
  readonly peakPowerWatts: number;
  readonly peakCurrentAmps: number;
  readonly timeConstantSeconds: number;
  readonly hazard: ChargeHazard;
}

/**
 * Discharge of a capacitor through a fixed resistor.
 *
 *     E = C V0^2 / 2,  t = R C ln(V0 / Vt),  P = V0^2 / R
 *
 * Solid.
 *
 * @throws {OutOfRangeError} if an argument is not finite and above 0
 * @example discharge({ capacitanceFarads: 100e-6, startVolts: 400, targetVolts: 10, resistanceOhms: 10e3 }) // 3.69 s, 8 J
 */
export function discharge(
  path: {
    readonly capacitanceFarads: number;
    readonly startVolts: number;
    readonly targetVolts: number;
    readonly resistanceOhms: number;
  },
  constants: JudgementConstants["F"] = judgementConstants.F,
): Discharge {
  const C = requirePositive("capacitanceFarads", path.capacitanceFarads);
  const V0 = requirePositive("startVolts", path.startVolts);
  const Vt = requirePositive("targetVolts", path.targetVolts);
  const R = requirePositive("resistanceOhms", path.resistanceOhms);
  return {
    storedJoules: storedEnergyJoules(C, V0),
    removedJoules: (C * (V0 ** 2 - Math.min(Vt, V0) ** 2)) / 2,
    durationSeconds: V0 > Vt ? R * C * Math.log(V0 / Vt) : 0,
    peakPowerWatts: V0 ** 2 / R,
    peakCurrentAmps: V0 / R,
    timeConstantSeconds: R * C,
    hazard: chargeHazard(V0, constants),
  };
}

/** E = C V^2 / 2. */
export function storedEnergyJoules(capacitanceFarads: number, volts: number): number {
  return (capacitanceFarads * volts ** 2) / 2;
}

/** Which hazard band a d.c. voltage lies in; the sign does not matter. */
export function chargeHazard(volts: number, constants: JudgementConstants["F"] = judgementConstants.F): ChargeHazard {
  const magnitude = Math.abs(volts);
  if (magnitude <= constants.V_target) return "at_target";
  return magnitude <= constants.V_elv ? "below_elv" : "hazardous";
}

/**
 * Voltage left after draining for a while: V0 exp(-t / RC).
 *
 * @param elapsedSeconds negative counts as 0: the drain has not begun
 */
export function decayedVolts(startVolts: number, timeConstantSeconds: number, elapsedSeconds: number): number {
  return (
    startVolts * Math.exp(-Math.max(elapsedSeconds, 0) / requirePositive("timeConstantSeconds", timeConstantSeconds))
  );
}
