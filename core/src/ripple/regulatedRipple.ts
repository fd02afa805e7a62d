import { tradeConstants } from "../constants/tradeConstants";
import { requireNonNegative } from "../numerics/requireRange";

const { regulatorRejectionDecibels } = tradeConstants.ripple;

/**
 * What a linear regulator lets through of the switching ripple of the rail that feeds it.
 *
 *     Vout = Vin 10^(-a/20),  a 30 dB, 15 to 50
 *
 * At some tens of kilohertz the loop has little gain left and the capacitors at its output do most of the work: rough, good for
 * "does it matter?" alone. At twice the mains it takes away far more.
 */
export function regulatedRipple(feedPeakToPeakVolts: number): {
  readonly typicalVolts: number;
  readonly lowVolts: number;
  readonly highVolts: number;
} {
  const volts = requireNonNegative("feedPeakToPeakVolts", feedPeakToPeakVolts);
  const [typicalVolts = 0, highVolts = 0, lowVolts = 0] = regulatorRejectionDecibels.map(
    (db) => volts * 10 ** (-db / 20),
  );
  return { typicalVolts, lowVolts, highVolts };
}
