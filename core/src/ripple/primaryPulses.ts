import { requireBetween, requireNonNegative, requirePositive } from "../numerics/requireRange";

/**
 * High-frequency current that a flyback or forward primary draws from the bulk: pulses over D of the period.
 *
 *     triangle: Irms^2 = (4/3) I^2 / D - I^2;  flat with swing r: I^2 ((1 + r^2/12) / D - 1);  I = P / V
 *
 * Solid for these shapes; the switching edges are left out.
 *
 * @param rippleRatio null: the current starts from zero (discontinuous)
 * @throws {OutOfRangeError} a duty outside 0..1, values not above 0
 */
export function primaryPulseAmpsRms(input: {
  readonly loadWatts: number;
  readonly busVolts: number;
  readonly dutyRatio: number;
  readonly rippleRatio: number | null;
}): number {
  const mean = requirePositive("loadWatts", input.loadWatts) / requirePositive("busVolts", input.busVolts);
  const duty = requireBetween("dutyRatio", requirePositive("dutyRatio", input.dutyRatio), 0, 1);
  const form = input.rippleRatio === null ? 4 / 3 : 1 + requireNonNegative("rippleRatio", input.rippleRatio) ** 2 / 12;
  return mean * Math.sqrt(Math.max(form / duty - 1, 0));
}
