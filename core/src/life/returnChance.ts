import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/** A capacitor of a board, as old as it is, and the new one that would take its place. */
export interface AgedPart {
  /** Same type, same place: parts of a group share their luck. */
  readonly group: string;
  readonly etaHours: number;
  readonly beta: number;
  readonly ageHours: number;
  readonly hasFailed: boolean;
  readonly newEtaHours: number;
  readonly newBeta: number;
}

const repairPolicies = ["failed_only", "same_group", "all"] as const;
export type RepairPolicy = (typeof repairPolicies)[number];

export interface ReturnChance {
  readonly returnProbability: number;
  readonly replacedCount: number;
}

/**
 * Chance that a repaired board comes back within its warranty, for three policies.
 *
 *     per group, over theta: l = w(theta) product of (failed: 1 - r, else r), r = R(age; theta eta)
 *     survival = sum l keep / sum l, keep = product over parts that stay of R(age + W) / R(age)
 *
 * times (1 - q_work) R(W) for each new part. One failed part tells of the others through theta (their common frailty).
 * The method is solid, theta and q_work are rough.
 *
 * @throws {OutOfRangeError} no part, a failed one of age 0, values out of range
 */
export function returnChances(
  parts: readonly AgedPart[],
  warrantyHours: number,
  options: { readonly hasFrailty: boolean; readonly workFailureRatio?: number | null },
  constants: JudgementConstants["D"] = judgementConstants.D,
): Readonly<Record<RepairPolicy, ReturnChance>> {
  const { warranty, work, thetas, groups } = checked(parts, warrantyHours, options, constants);
  const chanceOf = (policy: RepairPolicy): ReturnChance => {
    const goes = new Set(
      parts.filter((part) => {
        const hasFailed = groups.get(part.group)?.some((one) => one.hasFailed) === true;
        return part.hasFailed || policy === "all" || (policy === "same_group" && hasFailed);
      }),
    );
    return { returnProbability: chance(groups, goes, warranty, thetas, work), replacedCount: goes.size };
  };
  return { failed_only: chanceOf("failed_only"), same_group: chanceOf("same_group"), all: chanceOf("all") };
}

/**
 * The same for any set of parts that are replaced; a failed one that is not among them is taken to be.
 *
 * @throws {OutOfRangeError} as `returnChances`
 */
export function returnProbabilityOf(
  parts: readonly AgedPart[],
  replaced: ReadonlySet<AgedPart>,
  warrantyHours: number,
  options: { readonly hasFrailty: boolean; readonly workFailureRatio?: number | null },
  constants: Pick<JudgementConstants["D"], "theta" | "q_work"> = judgementConstants.D,
): number {
  const { warranty, work, thetas, groups } = checked(parts, warrantyHours, options, constants);
  const goes = new Set(parts.filter((part) => part.hasFailed || replaced.has(part)));
  return chance(groups, goes, warranty, thetas, work);
}

function checked(
  parts: readonly AgedPart[],
  warrantyHours: number,
  options: { readonly hasFrailty: boolean; readonly workFailureRatio?: number | null },
  constants: Pick<JudgementConstants["D"], "theta" | "q_work">,
) {
  if (parts.length === 0) throw new OutOfRangeError("parts", 0, "at least one part");
  const warranty = requirePositive("warrantyHours", warrantyHours);
  const work = options.workFailureRatio ?? constants.q_work;
  if (!(work >= 0 && work < 1)) throw new OutOfRangeError("workFailureRatio", work, "from 0 to below 1");
  for (const part of parts) {
    for (const key of ["etaHours", "beta", "newEtaHours", "newBeta"] as const) requirePositive(key, part[key]);
    requireNonNegative("ageHours", part.ageHours);
    if (part.hasFailed && part.ageHours === 0) throw new OutOfRangeError("ageHours", 0, "above 0 for a failed part");
  }
  const thetas: readonly (readonly [number, number])[] = options.hasFrailty ? constants.theta : [[1, 1]];
  const groups = new Map<string, AgedPart[]>();
  for (const part of parts) groups.set(part.group, [...(groups.get(part.group) ?? []), part]);
  return { warranty, work, thetas, groups };
}

function chance(
  groups: ReadonlyMap<string, readonly AgedPart[]>,
  goes: ReadonlySet<AgedPart>,
  warranty: number,
  thetas: readonly (readonly [number, number])[],
  work: number,
): number {
  let survival = 1;
  for (const group of groups.values()) {
    let [kept, total] = [0, 0];
    for (const [theta, weight] of thetas) {
      let [likelihood, keep] = [weight, 1];
      for (const part of group) {
        const now = weibullSurvival(part.ageHours, theta * part.etaHours, part.beta);
        likelihood *= part.hasFailed ? 1 - now : now;
        if (!goes.has(part)) keep *= weibullSurvival(part.ageHours + warranty, theta * part.etaHours, part.beta) / now;
      }
      total += likelihood;
      kept += likelihood * keep;
    }
    survival *= kept / total;
    for (const part of group) {
      if (goes.has(part)) survival *= (1 - work) * weibullSurvival(warranty, part.newEtaHours, part.newBeta);
    }
  }
  return 1 - survival;
}

const weibullSurvival = (hours: number, eta: number, beta: number) => Math.exp(-((hours / eta) ** beta));
