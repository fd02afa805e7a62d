import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { normalDistribution, normalQuantile } from "../numerics/normalDistribution";
import { requireBetween, requireNonNegative, requirePositive } from "../numerics/requireRange";

export type LifeDistribution = "weibull" | "lognormal";

export interface ScatterQuestion {
  readonly lifeHours: number;
  /** Fraction that has failed at that life, between 0 and 1. */
  readonly failedRatio: number;
  readonly distribution: LifeDistribution;
  /** Weibull's slope, or the lognormal's sigma; null: the usual one. */
  readonly shape?: number | null;
  readonly ageHours: number;
  readonly warrantyHours: number;
}

export interface LifeScatter {
  /** Characteristic life (Weibull) or median. */
  readonly scaleHours: number;
  readonly hoursAtOnePercent: number;
  readonly hoursAtTenPercent: number;
  readonly medianHours: number;
  /** Chance of a failure within the warranty, for a part that has lived until now. */
  readonly warrantyFailureProbability: number;
}

/**
 * Spread around a computed life.
 *
 *     Weibull: R = exp(-(t/eta)^beta), eta = L / (-ln(1 - q))^(1/beta); lognormal: R = phi(-ln(t/median)/sigma)
 *     P = 1 - R(age + W) / R(age)
 *
 * Rough. Outside validity where the part should long have failed: R(age) underflows.
 *
 * @throws {OutOfRangeError} a fraction outside 0..1, hours not above 0
 */
export function lifeScatter(
  question: ScatterQuestion,
  constants: JudgementConstants["D"] = judgementConstants.D,
): LifeScatter {
  const life = requirePositive("lifeHours", question.lifeHours);
  const q = requireBetween("failedRatio", question.failedRatio, 0, 1);
  const age = requireNonNegative("ageHours", question.ageHours);
  const end = age + requirePositive("warrantyHours", question.warrantyHours);
  if (question.distribution === "weibull") {
    const beta = requirePositive("shape", question.shape ?? constants.beta);
    const eta = life / (-Math.log1p(-q)) ** (1 / beta);
    const hoursAt = (p: number) => eta * (-Math.log1p(-p)) ** (1 / beta);
    return {
      scaleHours: eta,
      hoursAtOnePercent: hoursAt(0.01),
      hoursAtTenPercent: hoursAt(0.1),
      medianHours: hoursAt(0.5),
      warrantyFailureProbability: -Math.expm1((age / eta) ** beta - (end / eta) ** beta),
    };
  }
  const sigma = requirePositive("shape", question.shape ?? constants.sigma_ln);
  const median = life * Math.exp(-normalQuantile(q) * sigma);
  const hoursAt = (p: number) => median * Math.exp(normalQuantile(p) * sigma);
  const survival = (hours: number) => (hours === 0 ? 1 : normalDistribution(-Math.log(hours / median) / sigma));
  return {
    scaleHours: median,
    hoursAtOnePercent: hoursAt(0.01),
    hoursAtTenPercent: hoursAt(0.1),
    medianHours: hoursAt(0.5),
    warrantyFailureProbability: 1 - survival(end) / survival(age),
  };
}
