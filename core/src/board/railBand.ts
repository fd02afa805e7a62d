import { tradeConstants } from "../constants/tradeConstants";
import type { BoardNet } from "./board";
import type { RailRules } from "./railRules";

const { mainsToleranceRatio, bridgeDropVolts, bulkRippleShare } = tradeConstants.board;

/**
 * The volts that a rail may have, low before high.
 *
 *     regulated     V (1 - tol) to V (1 + tol)         tol: the rail's own, else the house's, wider below zero
 *     bulk          sqrt(2) * (0.9 .. 1.1) * V_mains - 2 V;  twice that in series;  loaded less a fifth for its ripple
 *
 * A bulk behind a bridge follows the mains and is held by nothing; behind a boost stage it is regulated. Usual limits,
 * rough.
 *
 * @returns null where nothing is known of the rail
 */
export function railBand(
  net: BoardNet,
  rules: RailRules,
  isLoaded: boolean,
): { readonly low: number; readonly high: number } | null {
  if (net.section === "bulk" && net.toleranceRatio === null) {
    const crest = Math.SQRT2 * rules.mainsVoltsRms * (net.network?.arrangement === "series" ? 2 : 1);
    const low = crest * (1 - mainsToleranceRatio) - bridgeDropVolts;
    return {
      low: isLoaded ? low * (1 - bulkRippleShare) : low,
      high: crest * (1 + mainsToleranceRatio) - bridgeDropVolts,
    };
  }
  if (net.nominalVolts === null || net.nominalVolts === 0) return null;
  const usual = net.nominalVolts < 0 ? rules.negativeToleranceRatio : rules.railToleranceRatio;
  const width = Math.abs(net.nominalVolts) * (net.toleranceRatio ?? usual);
  return { low: net.nominalVolts - width, high: net.nominalVolts + width };
}
