import type { LoggedFact } from "../readings/factMoment";
import type { Rig } from "../readings/reading";

/** What was logged about the way to mains: what tripped, what was tested since, and how the first power-up went. */
export const powerEventKinds = [
  "fuse_blown",
  "breaker_tripped",
  "residual_current_tripped",
  /** One number across the bulk, as older jobs have it. */
  "short_test",
  "gate_check",
  "gate_overruled",
  "first_power",
] as const;
export type PowerEventKind = (typeof powerEventKinds)[number];

/** What is tested cold before a unit goes to the mains. */
export const gateItems = [
  /** L to N behind the fuse. */
  "line_neutral",
  /** Bridge + to -, by diode test both ways. */
  "bridge",
  "bulk",
  /** Each power transistor, D-S or C-E. */
  "transistor",
  "shunt",
  /** Only where one of the others is low. */
  "single_diode",
  "gate_source",
  /** L and N together to protective earth, by an insulation test: after a residual-current trip. */
  "earth_insulation",
  /** After work on an output: the rail to its ground. */
  "rail",
  /** After a power part was replaced: its tab to the sink. */
  "sink",
  /** Protective earth from the plug's pin to the closed case. */
  "earth_bond",
] as const;
export type GateItem = (typeof gateItems)[number];

/** Why an item has no number. */
export const gateReasons = ["not_there", "isolated_part", "tested_out", "no_access"] as const;
export type GateReason = (typeof gateReasons)[number];

/** A number as read; "open" where the meter showed none. */
export type GateValue = number | "open";

/** What lamp, limiter or rail did at first power. */
export const powerSigns = [
  "flash_then_dim",
  "dark",
  "bright",
  "pulsing",
  "bright_dim_bright",
  "dim_growing",
  "straight_runs",
  "straight_trips",
] as const;
export type PowerSign = (typeof powerSigns)[number];

export interface PowerEvent extends LoggedFact {
  readonly kind: PowerEventKind;
  /** With short_test: ohms across the bulk, where a number was read. */
  readonly resistanceOhms: number | null;
  /** With short_test and gate_check: what the person concluded. */
  readonly hasShort: boolean | null;
  /** With gate_check: what was tested, on which part or net, and what was read. */
  readonly item: GateItem | null;
  readonly subjectId: string | null;
  readonly values: readonly GateValue[];
  readonly reason: GateReason | null;
  /** With first_power: through what, and what it did. */
  readonly rig: Rig | null;
  readonly sign: PowerSign | null;
  /** With gate_overruled: the reason. */
  readonly note: string | null;
}
