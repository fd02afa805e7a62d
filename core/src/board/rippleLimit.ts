import { tradeConstants } from "../constants/tradeConstants";
import type { BoardNet } from "./board";
import type { RailRules } from "./railRules";

const { lowRailVolts } = tradeConstants.board;

/**
 * Ripple that a rail may have, peak to peak: its own limit, else the house's millivolts for low rails, else its share of the
 * nominal voltage. null where nothing is known.
 */
export function rippleLimitVolts(net: BoardNet, rules: RailRules): number | null {
  if (net.rippleLimitVolts !== null) return net.rippleLimitVolts;
  if (net.nominalVolts === null || net.nominalVolts === 0) return null;
  const volts = Math.abs(net.nominalVolts);
  if (volts <= lowRailVolts && rules.rippleLimitLowRailVolts > 0) return rules.rippleLimitLowRailVolts;
  return volts * rules.rippleLimitRatio;
}
