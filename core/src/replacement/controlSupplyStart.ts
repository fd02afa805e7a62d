import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/** The supply of a control IC: charged through a start-up resistor until the IC starts, then carried by its winding. */
export interface ControlSupply {
  readonly capacitanceFarads: number;
  readonly bulkVolts: number;
  readonly startOhms: number;
  /** What the IC draws before it starts. */
  readonly quiescentAmps: number;
  readonly startVolts: number;
  readonly stopVolts: number;
  readonly operatingAmps: number;
  /** Until the winding has taken over. */
  readonly takeoverSeconds: number;
}

/**
 * Whether and when a control supply starts, and the least capacitance that carries it over.
 *
 *     t = -R C ln(1 - Von / Vf),  Vf = Vbulk - Iq R;  Cmin = Iop t_takeover / (Von - Voff)
 *
 * Solid. `startSeconds` is Infinity where the resistor cannot lift it to the start threshold.
 *
 * @throws {OutOfRangeError} values out of range, or a start threshold that is not above the stop threshold
 */
export function controlSupplyStart(supply: ControlSupply): {
  readonly startSeconds: number;
  readonly leastFarads: number;
  readonly doesStart: boolean;
} {
  const C = requirePositive("capacitanceFarads", supply.capacitanceFarads);
  const R = requirePositive("startOhms", supply.startOhms);
  const on = requirePositive("startVolts", supply.startVolts);
  const off = requireNonNegative("stopVolts", supply.stopVolts);
  if (!(on > off)) throw new OutOfRangeError("startVolts", on, "above the stop threshold");
  const final =
    requirePositive("bulkVolts", supply.bulkVolts) - requireNonNegative("quiescentAmps", supply.quiescentAmps) * R;
  const startSeconds = final <= on ? Infinity : -R * C * Math.log(1 - on / final);
  const takeover = requirePositive("takeoverSeconds", supply.takeoverSeconds);
  const leastFarads = (requirePositive("operatingAmps", supply.operatingAmps) * takeover) / (on - off);
  return { startSeconds, leastFarads, doesStart: Number.isFinite(startSeconds) && C >= leastFarads };
}
