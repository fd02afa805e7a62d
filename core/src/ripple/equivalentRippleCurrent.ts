import type { CapacitorClass } from "../capacitors/capacitorClass";
import { rippleFrequencyMultiplier } from "../capacitors/rippleFrequencyMultiplier";
import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requireNonNegative } from "../numerics/requireRange";

export interface RippleHarmonic {
  readonly frequencyHertz: number;
  readonly ampsRms: number;
}

/**
 * One 100 kHz current that heats as much as a set of harmonics.
 *
 *     Ieq = sqrt(sum (I_k / F(f_k))^2)
 *
 * Solid, given the multipliers F.
 *
 * @throws {OutOfRangeError} for an empty list or a negative current
 */
export function equivalentRippleCurrent(
  part: {
    readonly capacitanceFarads: number;
    readonly ratedVolts: number;
    readonly capacitorClass?: CapacitorClass | null | undefined;
  },
  harmonics: readonly RippleHarmonic[],
  constants: JudgementConstants["D"] = judgementConstants.D,
): { readonly equivalentAmpsRms: number; readonly trueAmpsRms: number } {
  if (harmonics.length === 0) throw new OutOfRangeError("harmonics", 0, "at least one harmonic");
  let weighted = 0;
  let plain = 0;
  for (const { frequencyHertz, ampsRms } of harmonics) {
    const amps = requireNonNegative("ampsRms", ampsRms);
    weighted += (amps / rippleFrequencyMultiplier(part, frequencyHertz, constants).multiplierRatio) ** 2;
    plain += amps ** 2;
  }
  return { equivalentAmpsRms: Math.sqrt(weighted), trueAmpsRms: Math.sqrt(plain) };
}
