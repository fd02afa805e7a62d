import { requireBetween, requireNonNegative, requirePositive } from "../numerics/requireRange";

/** What a bulk capacitor behind a boost stage (PFC) sees at twice the mains frequency. */
export interface BoostBulk {
  readonly peakToPeakVolts: number;
  readonly lowFrequencyAmpsRms: number;
  readonly holdUpSeconds: number;
}

/**
 * Bulk behind a boost stage of unit power factor: the mains brings P (1 - cos 2wt), the load takes P.
 *
 *     Irms = P / (sqrt(2) V),  Vpp = 2 (P/V) sqrt(ESR^2 + (1 / (2 w C))^2),  t = C (V^2 - Vd^2) / (2 P)
 *
 * First order in ripple over V: good to a few per cent while the ripple is below a tenth of the bus. Usual.
 *
 * @throws {OutOfRangeError} values not above 0, a dropout not below the bus
 */
export function boostBulk(input: {
  readonly busVolts: number;
  readonly mainsHertz: number;
  readonly loadWatts: number;
  readonly capacitanceFarads: number;
  readonly esrOhms: number;
  readonly dropoutVolts: number;
}): BoostBulk {
  const V = requirePositive("busVolts", input.busVolts);
  const P = requirePositive("loadWatts", input.loadWatts);
  const C = requirePositive("capacitanceFarads", input.capacitanceFarads);
  const omega = 2 * Math.PI * requirePositive("mainsHertz", input.mainsHertz);
  const esr = requireNonNegative("esrOhms", input.esrOhms);
  const dropout = requireBetween("dropoutVolts", input.dropoutVolts, 0, V);
  return {
    peakToPeakVolts: 2 * (P / V) * Math.hypot(esr, 1 / (2 * omega * C)),
    lowFrequencyAmpsRms: P / (Math.SQRT2 * V),
    holdUpSeconds: (C * (V * V - dropout * dropout)) / (2 * P),
  };
}
