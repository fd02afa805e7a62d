import { tradeConstants } from "../constants/tradeConstants";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";
import type { CapacitorClass } from "./capacitorClass";

/** What most data sheets allow: 0.01 of C V, 3 microamperes at least. Usual. */
export const usualLeakage = { factorRatio: 0.01, floorAmps: 3e-6 } as const;

const { polymerLeakageRatio, hybridLeakageRatio, highVoltLeakageRatio, highVoltsFrom } = tradeConstants.capacitors;

/**
 * What sheets of a part's kind allow: a solid polymer a fifth of C V, a hybrid and parts for the mains some hundredths, all others
 * a hundredth. From sheets, rough.
 */
export function usualLeakageOf(part: { readonly capacitorClass: CapacitorClass | null; readonly ratedVolts: number }): {
  readonly factorRatio: number;
  readonly floorAmps: number;
} {
  const { floorAmps } = usualLeakage;
  if (part.capacitorClass === "polymer") return { factorRatio: polymerLeakageRatio, floorAmps };
  if (part.capacitorClass === "hybrid") return { factorRatio: hybridLeakageRatio, floorAmps };
  return part.ratedVolts >= highVoltsFrom ? { factorRatio: highVoltLeakageRatio, floorAmps } : usualLeakage;
}

/**
 * Catalogue leakage limit of a re-formed part at rated voltage and 20 degrees C.
 *
 *     I = max(factor C V, floor), C in microfarads, I in microamperes
 *
 * @param factorRatio 0.01 or 0.03 in catalogues
 * @returns amperes
 * @throws {OutOfRangeError} C, V or factor not above 0, floor negative
 * @example leakageLimitAmps({ capacitanceFarads: 1e-3, ratedVolts: 16, factorRatio: 0.01, floorAmps: 3e-6 }) // 160e-6
 */
export function leakageLimitAmps(part: {
  readonly capacitanceFarads: number;
  readonly ratedVolts: number;
  readonly factorRatio: number;
  readonly floorAmps: number;
}): number {
  const product =
    requirePositive("factorRatio", part.factorRatio) *
    requirePositive("capacitanceFarads", part.capacitanceFarads) *
    requirePositive("ratedVolts", part.ratedVolts);
  return Math.max(product, requireNonNegative("floorAmps", part.floorAmps));
}
