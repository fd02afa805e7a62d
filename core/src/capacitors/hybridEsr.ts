import { tradeConstants } from "../constants/tradeConstants";
import { requirePositive } from "../numerics/requireRange";

const { hybridMostOhms, hybridVoltFactors } = tradeConstants.capacitors;

/**
 * Most ESR that sheets give a hybrid at 100 kHz and 20 degrees C, by its can and its volts: a larger can has less, a foil for more
 * volts has more. Rough (a third either way): 8 mm and 35 V 27 milliohm, 8 mm and 63 V 43.
 *
 * @param diameterMetres null: as of an 8 mm can
 */
export function hybridEsrMaximumOhms(part: {
  readonly diameterMetres: number | null;
  readonly ratedVolts: number;
}): number {
  const volts = requirePositive("ratedVolts", part.ratedVolts);
  const diameter = part.diameterMetres ?? 8e-3;
  const bySize = hybridMostOhms.find(([upTo]) => diameter <= upTo)?.[1] ?? 15e-3;
  return bySize * (hybridVoltFactors.find(([upTo]) => volts <= upTo)?.[1] ?? 2.4);
}
