import type { QuantityKind, Reading } from "./reading";

/** What stood between the mains and the unit so that a reading does not say what it would say without. */
export type Falsifier = "series_lamp" | "electronic_limiter" | "isolation_transformer";

/** What a transformer changes: starting, what is drawn, and what finds its way to earth. Volts and ripple stay. */
const behindTransformer: readonly QuantityKind[] = ["time", "power", "leakage_current"];

/**
 * What falsifies a reading under power, by its quantity; null where nothing does. A lamp or a limiter gives way to whatever
 * is drawn, so that nothing read through it holds but what is smelt or heard. A transformer rated for twice the unit sags
 * less than 5 %: regulation and ripple behind it hold, timing, power and leakage do not. A reading with a probe on the
 * mains side is not asked for again without its transformer. One rule for what proves a repair and for what speaks of a
 * fault; bench practice, rough.
 */
export function falsifiedBy(
  { quantity, rig, isPowered }: Pick<Reading, "quantity" | "rig" | "isPowered">,
  isOnMainsSide = false,
): Falsifier | null {
  if (!isPowered || quantity === "observation") return null;
  if (rig.isSeriesLamp) return "series_lamp";
  if (rig.isElectronicLimiter) return "electronic_limiter";
  return rig.isIsolationTransformer && !isOnMainsSide && behindTransformer.includes(quantity)
    ? "isolation_transformer"
    : null;
}
