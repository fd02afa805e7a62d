import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";

/**
 * Switching-frequency current that a boost stage in continuous conduction brings into its bulk, apart from the part at twice the
 * mains.
 *
 *     Itotal^2 = 8 sqrt(2) P^2 / (3 pi Vac Vo) - (P / Vo)^2,   Ihf^2 = Itotal^2 - (P / Vo)^2 / 2
 *
 * Solid for unit power factor with the choke's ripple left out; critical conduction brings a third to a half more (from
 * benches). Adds to the converter's own pulses as squares, for the two do not keep step.
 *
 * @throws {OutOfRangeError} values not above 0, a mains whose crest is not below the bus
 */
export function boostSwitchingAmpsRms(input: {
  readonly loadWatts: number;
  readonly busVolts: number;
  readonly mainsVoltsRms: number;
}): number {
  const P = requirePositive("loadWatts", input.loadWatts);
  const Vo = requirePositive("busVolts", input.busVolts);
  const Vac = requirePositive("mainsVoltsRms", input.mainsVoltsRms);
  if (Math.SQRT2 * Vac >= Vo) throw new OutOfRangeError("mainsVoltsRms", Vac, "a crest below the bus");
  const mean = P / Vo;
  const total = (8 * Math.SQRT2 * P * P) / (3 * Math.PI * Vac * Vo) - mean * mean;
  return Math.sqrt(Math.max(total - (mean * mean) / 2, 0));
}

/**
 * Current that a resonant half bridge draws from its bulk: half sines, I sqrt(pi^2 / 4 - 1) with I = P / V. Solid at resonance.
 *
 * @throws {OutOfRangeError} values not above 0
 */
export function resonantPrimaryAmpsRms(loadWatts: number, busVolts: number): number {
  const mean = requirePositive("loadWatts", loadWatts) / requirePositive("busVolts", busVolts);
  return mean * Math.sqrt(Math.PI ** 2 / 4 - 1);
}
