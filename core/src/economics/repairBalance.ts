import { requireNonNegative } from "../numerics/requireRange";

/** What is known of a repair's cost; money in minor units, null where nobody knows yet. */
export interface RepairCosts {
  readonly labourMinutes: number | null;
  readonly labourPerHourMinor: number;
  readonly partsMinor: number | null;
  /** Chance that the unit comes back within the warranty and is done again at the shop's cost. */
  readonly comebackProbability: number;
  /** What another unit would cost the customer. */
  readonly replacementMinor: number | null;
  /** What the customer was told, with markup and tax; absent or null: nothing was told, labour and parts stand in for it. */
  readonly toldMinor?: number | null;
  /** What the customer agreed to. */
  readonly limitMinor: number | null;
}

export type RepairVerdict = "pays" | "above_limit" | "replacement_cheaper" | "not_known" | "nothing_to_compare";

export interface RepairBalance {
  readonly labourMinor: number | null;
  /** Labour and parts: what the customer would be told. */
  readonly quoteMinor: number | null;
  /** What a comeback costs the shop on average. */
  readonly comebackMinor: number | null;
  readonly verdict: RepairVerdict;
}

/**
 * Whether a repair pays: labour and parts against the customer's limit and the price of another unit.
 *
 *     quote = minutes / 60 x rate + parts,  comeback = p x quote
 *
 * The comeback is the shop's own risk and counts against a replacement, not against the customer's limit. Unknown parts
 * count as nothing, unknown labour makes the whole unknown; without a limit and another unit's price nothing is said. Arithmetic solid, the numbers are the shop's.
 *
 * @throws {OutOfRangeError} for negative minutes, money or probability
 */
export function repairBalance(costs: RepairCosts): RepairBalance {
  requireNonNegative("labourPerHourMinor", costs.labourPerHourMinor);
  const p = requireNonNegative("comebackProbability", costs.comebackProbability);
  for (const key of ["labourMinutes", "partsMinor", "replacementMinor", "limitMinor"] as const) {
    const value = costs[key];
    if (value !== null) requireNonNegative(key, value);
  }
  if (costs.labourMinutes === null) {
    return { labourMinor: null, quoteMinor: null, comebackMinor: null, verdict: "not_known" };
  }
  const labourMinor = Math.round((costs.labourMinutes / 60) * costs.labourPerHourMinor);
  const quoteMinor = labourMinor + (costs.partsMinor ?? 0);
  const comebackMinor = Math.round(p * quoteMinor);
  const askedMinor = costs.toldMinor ?? quoteMinor;
  const isAboveLimit = costs.limitMinor !== null && askedMinor > costs.limitMinor;
  const isDearer = costs.replacementMinor !== null && askedMinor + comebackMinor > costs.replacementMinor;
  const isAlone = costs.limitMinor === null && costs.replacementMinor === null;
  return {
    labourMinor,
    quoteMinor,
    comebackMinor,
    verdict: isAlone ? "nothing_to_compare" : isDearer ? "replacement_cheaper" : isAboveLimit ? "above_limit" : "pays",
  };
}
