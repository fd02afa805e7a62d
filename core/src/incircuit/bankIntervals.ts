import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requireFinite, requireNonNegative, requirePositive } from "../numerics/requireRange";

/** `single`: the others are taken as healthy; `any`: the others may be anything, open included. */
export type BankMode = "single" | "any";

export type IntervalVerdict =
  | "cleared"
  | "condemned"
  | "masked"
  | "explains"
  | "no_fault_needed"
  | "not_sole"
  | "inconsistent";

export interface PartInterval {
  readonly verdict: IntervalVerdict;
  /** Bounds on ESR over typical that agree with the reading; Infinity is an open part. null: no value agrees. */
  readonly multipleMin: number | null;
  readonly multipleMax: number | null;
  /** Smallest failed multiple that the reading could hide; null where it can hide none. */
  readonly hiddenFaultMultiple: number | null;
}

export interface BankIntervals {
  readonly parts: readonly PartInterval[];
  readonly isSomeAboveHealthy: boolean;
  readonly isSomeAboveWorn: boolean;
  readonly isSomeFailed: boolean;
  readonly couldAllBeHealthy: boolean;
  readonly allHealthyMaxOhms: number;
  readonly allWornOhms: number;
}

export interface BankReading {
  readonly typicalEsrOhms: readonly number[];
  readonly readingOhms: number;
  readonly standardUncertaintyOhms: number;
  readonly leadOhms: number;
  readonly parallelOhms?: number | null;
  readonly mode: BankMode;
  readonly healthyLowRatio?: number | null;
  readonly healthyHighRatio?: number | null;
  readonly wornRatio?: number | null;
  readonly failedRatio?: number | null;
  readonly coverageFactor?: number | null;
}

/**
 * Which parts of a bank a resistive in-circuit reading clears, condemns or leaves masked, by interval arithmetic on
 * conductances: every part's share is bounded by what its neighbours can at most and must at least carry.
 *
 * Valid where ESR dominates (100 kHz, 100 uF and more). Algebra solid, limits usual.
 *
 * @throws {OutOfRangeError} unless low < high <= worn <= failed, or where a resistance is not above 0
 */
export function bankIntervals(
  reading: BankReading,
  constants: JudgementConstants["C"] = judgementConstants.C,
): BankIntervals {
  const low = requirePositive("healthyLowRatio", reading.healthyLowRatio ?? constants.r_lo);
  const high = requireFinite("healthyHighRatio", reading.healthyHighRatio ?? constants.r_hi);
  const worn = requireFinite("wornRatio", reading.wornRatio ?? constants.r_worn);
  const failed = requireFinite("failedRatio", reading.failedRatio ?? constants.r_fail);
  if (!(low < high && high <= worn && worn <= failed)) {
    throw new OutOfRangeError("healthyHighRatio", high, "low < high <= worn <= failed");
  }
  const k = requireNonNegative("coverageFactor", reading.coverageFactor ?? constants.k_cov);
  const typical = reading.typicalEsrOhms.map((ohms) => requirePositive("typicalEsrOhms", ohms));
  if (typical.length === 0) throw new OutOfRangeError("typicalEsrOhms", 0, "at least one part");
  const x = requirePositive("readingOhms", reading.readingOhms) - requireNonNegative("leadOhms", reading.leadOhms);
  const u = requireNonNegative("standardUncertaintyOhms", reading.standardUncertaintyOhms);
  const load = reading.parallelOhms == null ? 0 : 1 / requirePositive("parallelOhms", reading.parallelOhms);
  const conductanceMin = Math.max(1 / Math.max(x + k * u, constants.R_floor) - load, 0);
  const conductanceMax = Math.max(1 / Math.max(x - k * u, constants.R_floor) - load, 0);

  const most = typical.map((ohms) => 1 / (low * ohms));
  const least = typical.map((ohms) => (reading.mode === "any" ? 0 : 1 / (high * ohms)));
  const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0);
  const parts = typical.map((ohms, n): PartInterval => {
    const a = Math.max(0, conductanceMin - (sum(most) - (most[n] as number)));
    const b = Math.min(most[n] as number, conductanceMax - (sum(least) - (least[n] as number)));
    if (b < a) {
      const verdict = reading.mode === "single" ? "not_sole" : "inconsistent";
      return { verdict, multipleMin: null, multipleMax: null, hiddenFaultMultiple: null };
    }
    const multipleMin = b <= 1e-12 ? Infinity : 1 / (ohms * b);
    const multipleMax = a <= 1e-12 ? Infinity : 1 / (ohms * a);
    return {
      verdict: verdictOf(reading.mode, multipleMin, multipleMax, worn, failed),
      multipleMin,
      multipleMax,
      hiddenFaultMultiple: multipleMax < failed ? null : Math.max(multipleMin, failed),
    };
  });

  const parallel = (multiple: number) => 1 / sum(typical.map((ohms) => 1 / (multiple * ohms)));
  const bankLow = conductanceMax > 0 ? 1 / conductanceMax : Infinity;
  const bankHigh = conductanceMin > 0 ? 1 / conductanceMin : Infinity;
  return {
    parts,
    isSomeAboveHealthy: bankLow > parallel(high),
    isSomeAboveWorn: bankLow > parallel(worn),
    isSomeFailed: bankLow > parallel(failed),
    couldAllBeHealthy: bankLow <= parallel(high) && bankHigh >= parallel(low),
    allHealthyMaxOhms: parallel(high),
    allWornOhms: parallel(worn),
  };
}

function verdictOf(mode: BankMode, min: number, max: number, worn: number, failed: number): IntervalVerdict {
  if (mode === "single") return max >= failed ? "explains" : "no_fault_needed";
  if (max <= worn) return "cleared";
  return min >= failed ? "condemned" : "masked";
}
