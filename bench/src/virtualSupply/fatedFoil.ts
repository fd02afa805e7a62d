import type { CapacitorFate, ScenarioCapacitor } from "@pale-cap/contract";
import { dried, type Foil, foilImpedance, newFoil } from "./foil";
import { type UsualKind, usualLoss, usualOhms } from "./usualPart";

/** Power by which what is still wet conducts. */
const steepness = 4;
/** Ohms x farads below it is ten times the leakage that sheets allow (0.01 CV). */
const leakingSeconds = 10;

const kindOf = ({ marking, can, capacitorClass }: ScenarioCapacitor): UsualKind => {
  const [microfarads = 1, volts = 1] = marking;
  const [diameter = 5, height = 11] = can;
  return [microfarads, volts, diameter, height, capacitorClass];
};

/** As it left its maker: a usual part of what is printed on it, as its series stands. */
export function freshFoil(part: ScenarioCapacitor, seriesRatio = part.fate?.seriesRatio ?? 1): Foil {
  const kind = kindOf(part);
  return newFoil(kind[0] * 1e-6, usualOhms(kind) * seriesRatio, usualLoss(kind));
}

const gone: Readonly<Record<CapacitorFate, (foil: Foil, amount: number) => Foil>> = {
  new: (foil) => foil,
  dry: (foil, wetRatio) => dried(foil, Math.min(Math.max(wetRatio, 0.02), 1), steepness),
  heat: (foil, times) => ({ ...foil, paperOhms: foil.paperOhms * times, farads: foil.farads * 0.85 }),
  tab: (foil, times) => ({ ...foil, tabOhms: foil.tabOhms * times }),
  leak: (foil, ohms) => ({ ...foil, leakOhms: ohms }),
  open: (foil) => ({ ...foil, isOpen: true }),
  short: (foil, ohms) => ({ ...foil, leakOhms: ohms }),
};

/** As it is now. */
export function fatedFoil(part: ScenarioCapacitor): Foil {
  const { mode = "new", amount = 1 } = part.fate ?? {};
  return gone[mode](freshFoil(part), amount);
}

/**
 * Whether a part has failed by its own new values: three times its ESR, 70 % of its capacitance, ten times the leakage that
 * sheets allow, or open. It is the unkind study's truth: nothing of what the application expects of a part is in it.
 */
export function hasFailed(part: ScenarioCapacitor): boolean {
  if (!part.fate) return part.esrRatio >= 3 || part.capacitanceRatio <= 0.7 || (part.leakageOhms ?? 1e9) < 1e4;
  const [now, then] = [fatedFoil(part), freshFoil(part)];
  const shown = foilImpedance({ ...now, leakOhms: Number.POSITIVE_INFINITY }, 100e3, 20);
  const fresh = foilImpedance(then, 100e3, 20);
  if (!shown || !fresh) return true;
  return shown.re >= 3 * fresh.re || now.farads <= 0.7 * then.farads || now.leakOhms * then.farads < leakingSeconds;
}
