import type { BoardPosition } from "../board/board";
import { type Section, sectionFacts } from "../board/sections";
import { hasPolymer } from "../capacitors/capacitorClass";
import { planningConstants } from "../constants/planningConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { BankCandidate, BankPlace, BankQuestion } from "./bankChoice";
import { placeRoom } from "./placeRoom";
import type { CataloguePart } from "./rankReplacements";
import { positionLimits } from "./ratedVoltage";
import type { Requirement } from "./requirement";
import type { Surroundings } from "./surroundings";

const { bodyClearanceMetres, pitchFormedMetres } = tradeConstants.replacement;
const { typicalOfCatalogueRatio } = tradeConstants.ripple;

/** Places of one rail that are filled together: what they need in sum, each with its own room while the others are out. */
export function bankQuestion(
  places: readonly { readonly position: BoardPosition; readonly requirement: Requirement }[],
  around: Surroundings,
): Omit<BankQuestion, "candidates" | "mode"> {
  const emptyIds = new Set([...around.emptyIds, ...places.map((one) => one.position.id)]);
  const sum = (of: (need: Requirement) => number) => places.reduce((total, one) => total + of(one.requirement), 0);
  const most = (of: (need: Requirement) => number) => Math.max(...places.map((one) => of(one.requirement)));
  const together = (of: (need: Requirement) => number | null): number | null => {
    const limits = places.map((one) => of(one.requirement));
    return limits.some((one) => one === null)
      ? null
      : 1 / limits.reduce((total: number, one) => total + 1 / (one as number), 0);
  };
  const amps = Math.max(
    sum((need) => need.rippleAmpsRms.value),
    1e-6,
  );
  const leastAmps = sum((need) => need.rippleAmpsRms.band?.[0] ?? need.rippleAmpsRms.value);
  const esrMin = together((need) => need.esrMinOhms?.value ?? null);
  return {
    places: places.map((one) => roomOf(one, places, { ...around, emptyIds })),
    capacitanceMinFarads: sum((need) => need.capacitanceMinFarads.value),
    capacitanceMaxFarads: sum((need) => need.capacitanceMaxFarads.value),
    leastRatedVolts: most((need) => need.leastRatedVolts.value),
    leastTemperatureClassCelsius: most((need) => need.leastTemperatureClassCelsius.value),
    frequencyHertz: 100e3,
    rippleAmpsRms: amps,
    ambientCelsius: most((need) => need.ambientCelsius.value),
    ratedCoreRiseKelvin: most((need) => need.ratedCoreRiseKelvin.value),
    esrMaxOhms: together((need) => need.esrMaxOhms?.value ?? null),
    // A sheet says the most, the regulation sees what is typical.
    esrMinOhms: esrMin === null ? null : esrMin / typicalOfCatalogueRatio,
    // Over what is assumed the least current counts, as for a single place.
    mostLoadRatio: amps / Math.max(leastAmps, 1e-6),
    leastLifeHours: 0,
    pitchToleranceMetres: pitchFormedMetres,
  };
}

/** Two cans of one bank share what lies between them evenly. */
function roomOf(
  { position, requirement }: { readonly position: BoardPosition; readonly requirement: Requirement },
  places: readonly { readonly position: BoardPosition }[],
  around: Surroundings,
): BankPlace {
  const free = placeRoom(position, around).diameterMaxMetres;
  const { xMetres: x, yMetres: y } = position;
  const shared = places.flatMap(({ position: other }) => {
    if (other.id === position.id || x === null || y === null || other.xMetres === null || other.yMetres === null)
      return [];
    return [Math.hypot(other.xMetres - x, other.yMetres - y) - bodyClearanceMetres];
  });
  const limits = [free, ...shared].filter((one): one is number => one !== null);
  const isByHand = requirement.diameterMaxMetres?.source === "entered";
  const drawn = limits.length > 0 && !isByHand ? Math.min(...limits) : (requirement.diameterMaxMetres?.value ?? null);
  return {
    diameterMaxMetres: drawn ?? tradeConstants.replacement.mostSearchedMetres,
    heightMaxMetres: requirement.heightMaxMetres?.value ?? tradeConstants.replacement.mostSearchedMetres,
    pitchMetres: requirement.pitchMetres?.value ?? null,
    mayStayEmpty: true,
  };
}

/** What no limit of a bank turns down. */
export function bankParts<Part extends CataloguePart>(
  catalogue: readonly Part[],
  question: Omit<BankQuestion, "candidates" | "mode">,
  section: Section,
  isLowEsrOnly: boolean,
): readonly Part[] {
  const { polymer } = positionLimits(sectionFacts[section].positionClass);
  return catalogue.filter(
    (part) =>
      part.ratedVolts >= question.leastRatedVolts &&
      part.temperatureClassCelsius >= question.leastTemperatureClassCelsius &&
      (question.capacitanceMaxFarads === null || part.capacitanceFarads <= question.capacitanceMaxFarads) &&
      !(isLowEsrOnly && part.capacitorClass === "gp") &&
      !(hasPolymer(part.capacitorClass) && polymer === "reject") &&
      question.places.some(
        (place) =>
          part.diameterMetres <= place.diameterMaxMetres + 1e-12 &&
          part.heightMetres <= place.heightMaxMetres + 1e-12 &&
          (place.pitchMetres === null ||
            Math.abs(part.pitchMetres - place.pitchMetres) <= (question.pitchToleranceMetres ?? 0) + 1e-12),
      ),
  );
}

/** A part of a catalogue as the search over a bank takes it. */
export const asCandidate = (part: CataloguePart): BankCandidate => ({
  ...{ id: part.id, capacitanceFarads: part.capacitanceFarads, esrOhms: part.esrOhms },
  ...{ ratedRippleAmpsRms: part.rippleAmpsRms, ratedLifeHours: part.ratedLifeHours, ratedVolts: part.ratedVolts },
  ...{ temperatureClassCelsius: part.temperatureClassCelsius, diameterMetres: part.diameterMetres },
  ...{ heightMetres: part.heightMetres, pitchMetres: part.pitchMetres, priceMinor: part.priceMinor },
});

/**
 * The candidates of a bank out of what may stand in it, as many as the search over any number of kinds takes: of each
 * capacitance the one that lives longest, the cheapest and the one that bears most, the values nearest to an even share first.
 */
export function bankCandidates(
  fits: readonly CataloguePart[],
  question: Omit<BankQuestion, "candidates" | "mode">,
): readonly BankCandidate[] {
  const even = question.capacitanceMinFarads / question.places.length;
  const byValue = new Map<number, CataloguePart[]>();
  for (const part of fits) {
    byValue.set(part.capacitanceFarads, [...(byValue.get(part.capacitanceFarads) ?? []), part]);
  }
  const values = [...byValue.keys()].sort((a, b) => Math.abs(Math.log(a / even)) - Math.abs(Math.log(b / even)));
  const chosen = new Set<(typeof fits)[number]>();
  for (const value of values) {
    const alike = byValue.get(value) ?? [];
    const best = (of: (part: (typeof fits)[number]) => number) =>
      alike.reduce((top, one) => (of(one) > of(top) ? one : top), alike[0] as (typeof fits)[number]);
    const enduring = (part: (typeof fits)[number]) =>
      part.ratedLifeHours * 2 ** ((part.temperatureClassCelsius - question.leastTemperatureClassCelsius) / 10);
    for (const part of [best((one) => one.rippleAmpsRms), best(enduring), best((one) => -one.priceMinor)]) {
      if (chosen.size < planningConstants.G.max_parts) chosen.add(part);
    }
  }
  return [...chosen].map(asCandidate);
}
