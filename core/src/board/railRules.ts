/** What a shop allows its rails, and how it wants them proved. */
export interface RailRules {
  readonly railToleranceRatio: number;
  /** The same for rails below zero: they are seldom regulated by themselves. */
  readonly negativeToleranceRatio: number;
  /** Ripple limit as share of the nominal voltage, where the rail has none of its own. */
  readonly rippleLimitRatio: number;
  /** The same for rails up to 6 V, peak to peak; 0: by share as well. */
  readonly rippleLimitLowRailVolts: number;
  /** From this share of its promise on a rail counts as loaded. */
  readonly loadShareRatio: number;
  /** What the mains is called: an unregulated bulk follows it. */
  readonly mainsVoltsRms: number;
  /** A new part that was never read is an open point. */
  readonly mustReadNewParts: boolean;
}
