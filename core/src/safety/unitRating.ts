import type { BoardNet } from "../board/board";
import { promisedWatts } from "../board/promisedWatts";
import { tradeConstants } from "../constants/tradeConstants";
import type { Topology } from "../facts/deviceProfiles";

const { usualEfficiencyRatio, labelPowerFactorRatio, correctedPowerFactorRatio } = tradeConstants.safety;

/** What a label says of a unit, as far as its power follows from it. */
export interface RatingLabel {
  readonly inputVoltsLow: number | null;
  readonly inputVoltsHigh: number | null;
  readonly inputAmps: number | null;
  readonly rails: readonly { readonly volts: number | null; readonly amps: number | null }[];
}

export interface UnitRating {
  readonly outputWatts: number;
  readonly source: "label_rails" | "promised_rails" | "label_input";
}

/** Whether a boost stage stands before the converter: it draws constant power, in phase. */
export const hasBoostStage = (topology: Topology | null, nets: readonly Pick<BoardNet, "section">[]): boolean =>
  topology?.startsWith("pfc") === true || nets.some((net) => net.section === "pfc");

/**
 * What a unit gives at most, from the best that is known: its label's rails, its promised rails, and last its label's
 * input. A rail counts once however many nodes it has: what hangs behind a choke carries the same current. Label amperes
 * are the worst case at the lowest mains, with a power factor near 0.6 and margin:
 *
 *     P = V_low * I * 0.55   without power factor correction, 0.95 with it;  times the efficiency 0.85
 *
 * Usual bench practice, rough.
 */
export function unitRating(
  label: RatingLabel,
  nets: readonly BoardNet[],
  topology: Topology | null,
): UnitRating | null {
  const labelled = label.rails.reduce((sum, rail) => sum + Math.abs(rail.volts ?? 0) * (rail.amps ?? 0), 0);
  if (labelled > 0) return { outputWatts: labelled, source: "label_rails" };
  const promised = promisedWatts(nets);
  if (promised > 0) return { outputWatts: promised, source: "promised_rails" };
  const inputVolts = label.inputVoltsLow ?? label.inputVoltsHigh;
  if (inputVolts === null || label.inputAmps === null) return null;
  const factor = hasBoostStage(topology, nets) ? correctedPowerFactorRatio : labelPowerFactorRatio;
  return { outputWatts: inputVolts * label.inputAmps * factor * usualEfficiencyRatio, source: "label_input" };
}
