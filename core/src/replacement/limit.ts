/** Where a limit comes from, so that every number can be asked why. */
export type LimitSource =
  | "marking"
  | "position_table"
  | "house_rule"
  | "rail"
  | "logged"
  | "size"
  | "drawing"
  | "lid"
  | "ripple"
  | "loop"
  | "linear"
  | "hold_up"
  | "inrush"
  | "take_over"
  | "start_time"
  | "spot"
  | "purpose"
  | "predecessor"
  | "survivor"
  | "assumed"
  | "entered";

export interface Limit {
  readonly value: number;
  readonly source: LimitSource;
  /** Between which it lies over what had to be assumed; absent where nothing was. */
  readonly band?: readonly [low: number, high: number];
}
