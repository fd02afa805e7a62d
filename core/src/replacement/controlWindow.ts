import { tradeConstants } from "../constants/tradeConstants";
import { requirePositive } from "../numerics/requireRange";
import { controlSupplyStart } from "./controlSupplyStart";

const { control, lowMainsRatio } = tradeConstants.replacement;

/**
 * Between which capacitances a control supply starts and is carried over, by what is usual of control ICs: charged through a megohm
 * from the rectified lowest mains to 16 V within 3 s, carried for 15 ms at 5 mA down to 9 V.
 *
 *     Cmin = Iop t/(Von - Voff);  Cmax = t/(-R ln(1 - Von/Vf))
 *
 * The arithmetic is solid, the values of an IC that nobody named are rough: a bound that turns the old part itself down says
 * that they are not its own, and is left out.
 *
 * @throws {OutOfRangeError} C or mains not above 0
 */
export function controlWindow(
  originalFarads: number,
  mainsVoltsRms: number,
): { readonly leastFarads: number | null; readonly mostFarads: number | null } {
  requirePositive("originalFarads", originalFarads);
  const bulkVolts = Math.SQRT2 * lowMainsRatio * requirePositive("mainsVoltsRms", mainsVoltsRms);
  const { startSeconds, leastFarads } = controlSupplyStart({ ...control, capacitanceFarads: 1, bulkVolts });
  // The time rises with C in proportion.
  const mostFarads = Number.isFinite(startSeconds) ? control.longestStartSeconds / startSeconds : null;
  return {
    leastFarads: leastFarads <= originalFarads ? leastFarads : null,
    mostFarads: mostFarads !== null && mostFarads >= originalFarads ? mostFarads : null,
  };
}
