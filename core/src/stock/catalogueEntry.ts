import { expectedEsr } from "../capacitors/expectedEsr";
import { rippleFrequencyMultiplier } from "../capacitors/rippleFrequencyMultiplier";
import { tradeConstants } from "../constants/tradeConstants";
import type { CataloguePart } from "../replacement/rankReplacements";

const { rowLimits, mostJoulesPerCubicMetre, mostCoulombsPerCubicMetre, highRatingHertz, testedHertz, sheetHertz } =
  tradeConstants.stock;

/** Ratings as a sheet prints them, where it prints them at another frequency than 100 kHz. */
export interface PrintedRatings {
  readonly frequencyHertz: number;
  readonly esrOhms: number | null;
  readonly rippleAmpsRms: number | null;
  readonly dissipationFactorRatio: number | null;
}

/** A part as a catalogue lists it. Its maker, series and order code tell it from every other. */
export interface CatalogueEntry extends Omit<CataloguePart, "id"> {
  readonly orderCode: string;
  readonly printed: PrintedRatings | null;
}

export const rowFields = [
  ...["capacitanceFarads", "ratedVolts", "temperatureClassCelsius", "diameterMetres", "heightMetres"],
  ...["pitchMetres", "esrOhms", "rippleAmpsRms", "ratedLifeHours", "priceMinor"],
] as const;
export type RowField = Exclude<keyof typeof rowLimits, "ratingHertz" | "dissipationFactorRatio">;

export interface RowDoubt {
  readonly field: RowField;
  readonly code: "outside" | "too_dense";
  readonly limits: readonly [number, number] | null;
}

/**
 * What cannot be true of a part: a number that no part has, or a can that would have to hold several times what the best hold.
 *
 *     C V / volume and C V^2 / (2 volume) within what cans reach
 *
 * The limits are wide and rough: they catch a slipped unit or column, not a doubtful sheet.
 *
 * @example entryDoubts({ ...part, capacitanceFarads: 1, ratedVolts: 400, diameterMetres: 5e-3 }) // too_dense
 */
export function entryDoubts(entry: Omit<CatalogueEntry, "maker" | "series" | "orderCode" | "printed">): RowDoubt[] {
  const doubts: RowDoubt[] = [];
  for (const field of Object.keys(rowLimits) as (keyof typeof rowLimits)[]) {
    if (field === "ratingHertz" || field === "dissipationFactorRatio") continue;
    const [least, most] = rowLimits[field];
    const value = entry[field];
    if (!(value >= least && value <= most)) doubts.push({ field, code: "outside", limits: [least, most] });
  }
  if (doubts.length > 0) return doubts;
  const cubicMetres = (Math.PI * entry.diameterMetres ** 2 * entry.heightMetres) / 4;
  const coulombs = entry.capacitanceFarads * entry.ratedVolts;
  const isTooDense =
    coulombs > mostCoulombsPerCubicMetre * cubicMetres ||
    (coulombs * entry.ratedVolts) / 2 > mostJoulesPerCubicMetre * cubicMetres;
  return isTooDense ? [{ field: "capacitanceFarads", code: "too_dense", limits: null }] : [];
}

/**
 * ESR and ripple at 100 kHz out of what a sheet prints at another frequency.
 *
 *     I(100 kHz) = I(f)/F(f);  ESR(100 kHz) = ESR(f) x expected(100 kHz)/expected(f);  ESR(f) = tan d/(2 pi f C)
 *
 * Ripple: usual. ESR from 120 Hz: rough (factor 2), by the can's own shape of ESR over frequency. At 10 kHz and above
 * what is printed counts as it is.
 *
 * @returns null where neither ESR nor tan delta is printed, or no ripple
 * @throws {OutOfRangeError} frequency, C or volts not above 0
 */
export function ratingsAtSwitching(
  part: Pick<CataloguePart, "capacitanceFarads" | "ratedVolts" | "capacitorClass" | "diameterMetres" | "heightMetres">,
  printed: PrintedRatings,
): { readonly esrOhms: number; readonly rippleAmpsRms: number } | null {
  const { frequencyHertz: hertz, dissipationFactorRatio } = printed;
  if (printed.rippleAmpsRms === null) return null;
  const rippleAmpsRms = printed.rippleAmpsRms / rippleFrequencyMultiplier(part, hertz).multiplierRatio;
  const expectedAt = (frequencyHertz: number) =>
    expectedEsr({ ...part, frequencyHertz, temperatureCelsius: 20 }).highOhms;
  const fromHertz = (ohms: number, from: number) =>
    from >= highRatingHertz ? ohms : (ohms * expectedAt(sheetHertz)) / expectedAt(from);
  if (printed.esrOhms !== null) return { esrOhms: fromHertz(printed.esrOhms, hertz), rippleAmpsRms };
  if (dissipationFactorRatio === null) return null;
  // Tan delta is printed at 120 Hz, whatever the ripple is printed at.
  const ohms = dissipationFactorRatio / (2 * Math.PI * testedHertz * part.capacitanceFarads);
  return { esrOhms: fromHertz(ohms, testedHertz), rippleAmpsRms };
}
