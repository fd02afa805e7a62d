import type { JudgementConstants, RippleFrequencyClass } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { interpolate, type TableRow } from "../numerics/interpolate";
import { requirePositive } from "../numerics/requireRange";
import type { CapacitorClass } from "./capacitorClass";

/**
 * Ripple current allowed at a frequency, relative to the 100 kHz rating: linear in log10 f within the class, constant
 * outside 50 Hz to 100 kHz. A rating given at 120 Hz must first be divided by the multiplier at 120 Hz. Usual. Solid polymer has
 * steps of its own (rough, from sheets); a hybrid is taken as its liquid size.
 *
 * @param part.capacitorClass absent: liquid
 * @throws {OutOfRangeError} if an argument is not finite and above 0
 * @example rippleFrequencyMultiplier({ capacitanceFarads: 22e-6, ratedVolts: 50 }, 120).multiplierRatio // 0.42
 */
export function rippleFrequencyMultiplier(
  part: {
    readonly capacitanceFarads: number;
    readonly ratedVolts: number;
    readonly capacitorClass?: CapacitorClass | null | undefined;
  },
  frequencyHertz: number,
  constants: JudgementConstants["D"] = judgementConstants.D,
): { readonly multiplierRatio: number; readonly frequencyClass: RippleFrequencyClass | "polymer" } {
  if (part.capacitorClass === "polymer") {
    const hertz = requirePositive("frequencyHertz", frequencyHertz);
    const row = polymerMultipliers.find(([below]) => hertz < below);
    return { multiplierRatio: row?.[1] ?? 1, frequencyClass: "polymer" };
  }
  const frequencyClass = classOf(
    requirePositive("capacitanceFarads", part.capacitanceFarads) * 1e6,
    requirePositive("ratedVolts", part.ratedVolts),
  );
  const values = constants.freq_mult[frequencyClass];
  const rows = constants.freq_pts.map((hertz, i): TableRow => [Math.log10(hertz), values[i] as number]);
  const x = Math.log10(requirePositive("frequencyHertz", frequencyHertz));
  return { multiplierRatio: interpolate(x, rows), frequencyClass };
}

const { polymerMultipliers } = tradeConstants.ripple;

/** Farads times 1e6 carries rounding noise: a part of exactly 33 uF must stay in its class. */
function classOf(microfarads: number, ratedVolts: number): RippleFrequencyClass {
  const isUpTo = (limit: number) => microfarads <= limit * (1 + 1e-12);
  if (ratedVolts >= 160) return "hv";
  if (isUpTo(33)) return "le33";
  if (isUpTo(270)) return "le270";
  if (isUpTo(680)) return "le680";
  return isUpTo(1800) ? "le1800" : "gt1800";
}
