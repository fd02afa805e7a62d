import type { FittedPart } from "../board/board";
import { canImpedance, pseudoRatedRippleAmpsRms } from "../capacitors/canImpedance";
import { canSurfaceSquareMetres } from "../capacitors/canSurface";
import { hasPolymer } from "../capacitors/capacitorClass";
import { expectedEsrOfPart } from "../capacitors/expectedEsrOfPart";
import { tradeConstants } from "../constants/tradeConstants";
import { expectedLife } from "./rankReplacements";
import type { Requirement } from "./requirement";

const { assumedLifeHours, assumedClassCelsius } = tradeConstants.replacement;
const { sheetHertz } = tradeConstants.stock;

/**
 * How long a part like the old one would last here when new, in the same air and under the same current as the new ones: its
 * rated life as usual for its class, its rated ripple as its can carries. Rough.
 *
 * @returns hours, as the ranking reckons them; null where its value, volts or size is not known
 */
export function oldPartLifeHours(requirement: Requirement, part: FittedPart): number | null {
  const { capacitanceFarads, ratedVolts, diameterMetres, heightMetres } = part;
  if (capacitanceFarads === null || ratedVolts === null || diameterMetres === null || heightMetres === null)
    return null;
  const capacitorClass = part.capacitorClass ?? "gp";
  const isTabled = !hasPolymer(capacitorClass) && ratedVolts <= 100;
  const expected = expectedEsrOfPart({ ...part, capacitorClass }, sheetHertz, 20);
  if (!expected) return null;
  const rippleAmpsRms = isTabled
    ? canImpedance({ capacitorClass, ratedVolts, diameterMetres, heightMetres }).ratedRippleAmpsRms
    : pseudoRatedRippleAmpsRms(canSurfaceSquareMetres(diameterMetres, heightMetres), expected.highOhms);
  return expectedLife(requirement, {
    ...{ capacitorClass, rippleAmpsRms, ratedLifeHours: assumedLifeHours[capacitorClass] },
    temperatureClassCelsius: part.temperatureClassCelsius ?? assumedClassCelsius,
  }).lifeHours;
}
