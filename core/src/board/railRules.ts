/** What a shop allows its rails. */
export interface RailRules {
  readonly railToleranceRatio: number;
  /** Ripple limit as share of the nominal voltage, where the rail has none of its own. */
  readonly rippleLimitRatio: number;
  /** The same for rails up to 6 V, peak to peak; 0: by share as well. */
  readonly rippleLimitLowRailVolts: number;
}
