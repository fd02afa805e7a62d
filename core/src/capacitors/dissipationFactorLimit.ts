import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { TableRow } from "../numerics/interpolate";
import { requirePositive } from "../numerics/requireRange";
import type { LiquidCapacitorClass } from "./capacitorClass";

const { sameVoltsRatio } = tradeConstants.capacitors;

/** How the surcharge per 1000 uF is counted: makers differ; continuous stays below the reading error. */
export type SurchargeStep = "continuous" | "floor" | "ceil";

/**
 * Catalogue maximum of tan d at 120 Hz and 20 degrees C.
 *
 * A rated voltage within 0.5 % of a table row takes that row; between rows the larger neighbour counts, no
 * interpolation; beyond the ends the end row. Above the knee (1000 uF) 0.02 is added per 1000 uF.
 *
 * @param ratedVolts above 0
 * @param capacitanceFarads above 0
 * @returns ratio (12 % is 0.12)
 * @throws {OutOfRangeError} if an argument is not finite and above 0
 * @see measuring point of IEC 60384-4; the numbers are catalogue-like (confidence: usual)
 * @example dissipationFactorLimitRatio({ ratedVolts: 16, capacitanceFarads: 1000e-6, capacitorClass: "gp" }) // 0.2
 */
export function dissipationFactorLimitRatio(
  part: {
    readonly ratedVolts: number;
    readonly capacitanceFarads: number;
    readonly capacitorClass: LiquidCapacitorClass;
    readonly step?: SurchargeStep;
  },
  constants: JudgementConstants["A"] = judgementConstants.A,
): number {
  const volts = requirePositive("ratedVolts", part.ratedVolts);
  const microfarads = requirePositive("capacitanceFarads", part.capacitanceFarads) * 1e6;
  const rows = part.capacitorClass === "gp" ? constants.tan_gp : constants.tan_lowz;
  const excess = Math.max(0, (microfarads - constants.tan_knee_uF) / 1000);
  return tableLimit(volts, rows) + constants.tan_slope_per_1000uF * stepped(excess, part.step ?? "continuous");
}

function tableLimit(volts: number, rows: readonly TableRow[]): number {
  const near = rows.find(([rowVolts]) => Math.abs(rowVolts - volts) <= sameVoltsRatio * rowVolts);
  if (near) return near[1];
  const below = rows.filter(([rowVolts]) => rowVolts < volts).at(-1);
  const above = rows.find(([rowVolts]) => rowVolts > volts);
  return Math.max(below?.[1] ?? 0, above?.[1] ?? 0);
}

function stepped(excess: number, step: SurchargeStep): number {
  if (step === "floor") return Math.floor(excess + 1e-9);
  if (step === "ceil") return Math.ceil(excess - 1e-9);
  return excess;
}
