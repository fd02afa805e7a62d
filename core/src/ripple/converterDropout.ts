import { tradeConstants } from "../constants/tradeConstants";
import type { Topology } from "../facts/deviceProfiles";

const { dropout } = tradeConstants.ripple;

/** Volts at which a converter gives up, and between which usual ones do. */
export interface Dropout {
  readonly typicalVolts: number;
  readonly lowVolts: number;
  readonly highVolts: number;
  /** A share of the full bus, or volts whatever the mains. */
  readonly isShare: boolean;
}

/**
 * Where a converter gives up as its bulk falls, by how it is built: a resonant one near its bus, a forward or half bridge at about
 * three quarters, a wide-range flyback at its lowest mains' crest less its ripple. From benches, rough; a single-range flyback
 * gives up at about half.
 *
 * @param fullVolts crest of the mains or the boosted bus
 */
export function converterDropout(topology: Topology | null, fullVolts: number): Dropout {
  const row = dropout[topology ?? "flyback"];
  if (row.isShare) {
    const [typical, low, high] = row.values;
    return {
      ...{ typicalVolts: typical * fullVolts, lowVolts: low * fullVolts, highVolts: high * fullVolts },
      isShare: true,
    };
  }
  const [typical, low] = row.values;
  // What does not reach over a wide range gives up at a share of its own.
  const highVolts = dropout.singleRangeRatio * fullVolts;
  const typicalVolts = Math.min(typical, highVolts);
  return { typicalVolts, lowVolts: Math.min(low, typicalVolts), highVolts, isShare: false };
}
