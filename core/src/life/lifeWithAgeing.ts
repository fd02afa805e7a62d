import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";
import { type LifeRating, lifeByTenKelvinRule } from "./lifeTenKelvin";

/** How ESR grows over the life that is used up. */
export type GrowthLaw = "exp" | "linear" | "hyperbolic";

export interface AgeingQuestion extends LifeRating {
  readonly rippleAmpsRms: number;
  readonly ratedRippleAmpsRms: number;
  readonly ratedCoreRiseKelvin: number;
  readonly halvingKelvin: 5 | 10;
  /** ESR at the end of life as a multiple of the new one, at least 1. */
  readonly endMultiple: number;
  readonly law: GrowthLaw;
  /** The catalogue life already contains the growth. */
  readonly isNormalised: boolean;
}

export interface AgeingLife {
  readonly lifeHours: number;
  readonly cappedLifeHours: number;
  /** As if ESR never grew. */
  readonly staticLifeHours: number;
  readonly startRiseKelvin: number;
  readonly endRiseKelvin: number;
}

const intervals = 400;

/**
 * Life when ESR, and with it the heat of the ripple, grows while it is used up.
 *
 *     J(y) = integral over x from 0 to 1 of 2^(-y m(x)/A) dx   (Simpson, 400 intervals)
 *     L = amb J(dT)/J(dT0), or amb 2^(dT0/A) J(dT) where the catalogue life knows no growth
 *
 * m(x): M^x, 1 + (M - 1) x, or 1/(1 - (1 - 1/M) x). Rough: it shows how sensitive a life is.
 *
 * @throws {OutOfRangeError} a multiple below 1, rated values not above 0
 */
export function lifeWithAgeing(
  question: AgeingQuestion,
  constants: JudgementConstants["D"] = judgementConstants.D,
): AgeingLife {
  const { endMultiple: M, halvingKelvin: A } = question;
  if (!(M >= 1) || !Number.isFinite(M)) throw new OutOfRangeError("endMultiple", M, "at least 1");
  const rated = requirePositive("ratedCoreRiseKelvin", question.ratedCoreRiseKelvin);
  const load =
    (requireNonNegative("rippleAmpsRms", question.rippleAmpsRms) /
      requirePositive("ratedRippleAmpsRms", question.ratedRippleAmpsRms)) **
    2;
  const startRiseKelvin = rated * load;
  const ambient = lifeByTenKelvinRule(question, constants).lifeHours;
  const used = (rise: number) => simpson((x) => 2 ** ((-rise * growth(question.law, M, x)) / A));
  const lifeHours = question.isNormalised
    ? (ambient * used(startRiseKelvin)) / used(rated)
    : ambient * 2 ** (rated / A) * used(startRiseKelvin);
  return {
    lifeHours,
    cappedLifeHours: Math.min(lifeHours, constants.cap_h),
    staticLifeHours: ambient * 2 ** ((rated - startRiseKelvin) / A),
    startRiseKelvin,
    endRiseKelvin: startRiseKelvin * M,
  };
}

function growth(law: GrowthLaw, M: number, x: number): number {
  switch (law) {
    case "exp":
      return M ** x;
    case "linear":
      return 1 + (M - 1) * x;
    case "hyperbolic":
      return 1 / (1 - (1 - 1 / M) * x);
  }
}

function simpson(of: (x: number) => number): number {
  let sum = of(0) + of(1);
  for (let n = 1; n < intervals; n++) sum += (n % 2 === 1 ? 4 : 2) * of(n / intervals);
  return sum / (3 * intervals);
}
