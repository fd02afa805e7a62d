import { tradeConstants } from "../constants/tradeConstants";
import type { Requirement } from "./requirement";

const { nearMiss, sizeToleranceMetres } = tradeConstants.replacement;

/**
 * Bounds within which a part of a catalogue can meet a requirement or come near it; SI, null: no bound. What lies outside is neither
 * offered nor named, so it need not be fetched.
 */
export interface PartReach {
  readonly leastFarads: number | null;
  readonly mostFarads: number | null;
  readonly mostDiameterMetres: number | null;
  readonly mostHeightMetres: number | null;
  readonly mostEsrOhms: number | null;
  readonly leastRippleAmps: number | null;
  /** What no reason overrides. */
  readonly leastVolts: number | null;
  readonly leastClassCelsius: number | null;
  readonly isLowEsrOnly: boolean;
  /** What flows, to weigh lives by before they are reckoned. */
  readonly rippleAmps: number | null;
  readonly mostCount: number;
}

/** As many as a ranking looks at, and a bank's search. */
const [mostRanked, mostOfBank] = [300, 4000];

/**
 * The reach of one place: its limits, wider by what still counts as near (a third in size, twice the ESR, half the ripple, and the
 * values that are comparable), and the limits that stand whatever the reason.
 */
export function partReach(requirement: Requirement): PartReach {
  const { original, railNeedVolts } = requirement;
  const wider = (limit: number | undefined, ratio: number, slack = 0) =>
    limit === undefined ? null : limit * ratio + slack;
  const [least, most] = [requirement.capacitanceMinFarads.value, requirement.capacitanceMaxFarads.value];
  const marked = requirement.leastRatedVolts.value;
  const { source, value, band } = requirement.rippleAmpsRms;
  const ripple = source === "assumed" ? null : (band?.[0] ?? value) * nearMiss.rippleRatio;
  return {
    leastFarads: Math.min(least, nearMiss.leastRatio * original.capacitanceFarads) * (1 - 1e-9),
    mostFarads: Math.max(most, nearMiss.mostRatio * original.capacitanceFarads) * (1 + 1e-9),
    mostDiameterMetres: wider(requirement.diameterMaxMetres?.value, nearMiss.sizeRatio, sizeToleranceMetres),
    mostHeightMetres: wider(requirement.heightMaxMetres?.value, nearMiss.sizeRatio, sizeToleranceMetres),
    mostEsrOhms: wider(requirement.esrMaxOhms?.value, nearMiss.esrRatio),
    leastRippleAmps: ripple,
    // A marking may be given up where the rail allows it, and only so far as it is still comparable.
    leastVolts:
      (railNeedVolts === null ? marked : Math.min(marked, Math.max(railNeedVolts, nearMiss.leastVoltsRatio * marked))) *
      (1 - 1e-9),
    leastClassCelsius: requirement.leastTemperatureClassCelsius.value - 1e-6,
    isLowEsrOnly: requirement.isLowEsrOnly,
    ...{ rippleAmps: value, mostCount: mostRanked },
  };
}

/** The reach of places that are filled together: every part that any kit of them could hold. */
export function bankReach(question: {
  readonly places: readonly { readonly diameterMaxMetres: number; readonly heightMaxMetres: number }[];
  readonly capacitanceMaxFarads: number | null;
  readonly leastRatedVolts: number;
  readonly leastTemperatureClassCelsius: number;
  readonly isLowEsrOnly: boolean;
}): PartReach {
  const most = (of: (place: (typeof question.places)[number]) => number) => Math.max(...question.places.map(of));
  return {
    leastFarads: null,
    mostFarads: question.capacitanceMaxFarads === null ? null : question.capacitanceMaxFarads * (1 + 1e-9),
    mostDiameterMetres: most((one) => one.diameterMaxMetres) + 1e-9,
    mostHeightMetres: most((one) => one.heightMaxMetres) + 1e-9,
    ...{ mostEsrOhms: null, leastRippleAmps: null },
    leastVolts: question.leastRatedVolts * (1 - 1e-9),
    leastClassCelsius: question.leastTemperatureClassCelsius - 1e-6,
    isLowEsrOnly: question.isLowEsrOnly,
    ...{ rippleAmps: null, mostCount: mostOfBank },
  };
}
