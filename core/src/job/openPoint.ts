import type { Lens } from "../facts/jobFacts";

/**
 * How heavily a point weighs: `light` ones a small repair accepts together as not measured; `plain` ones want a reason;
 * `person` ones a reason and who gave it; an `earth` is closed by a screw, a count or a measured bond, and by nothing else.
 */
export type PointWeight = "light" | "plain" | "person" | "earth";

interface CodeFacts {
  /** In which lens a point is settled. */
  readonly settledIn: Lens;
  readonly weight: PointWeight;
}

/** Every code of an open point. */
export const pointFacts = {
  part_not_replaced: { settledIn: "rework", weight: "plain" },
  part_not_refitted: { settledIn: "rework", weight: "plain" },
  part_undecided: { settledIn: "measure", weight: "light" },
  neighbour_not_read: { settledIn: "measure", weight: "light" },
  polarity_unconfirmed: { settledIn: "rework", weight: "plain" },
  polarity_not_recorded: { settledIn: "rework", weight: "plain" },
  polarity_conflict: { settledIn: "rework", weight: "person" },
  new_part_bad: { settledIn: "rework", weight: "person" },
  new_part_not_read: { settledIn: "measure", weight: "light" },
  rail_not_loaded: { settledIn: "prove", weight: "light" },
  rail_part_load: { settledIn: "prove", weight: "light" },
  rail_unexplained: { settledIn: "prove", weight: "plain" },
  rail_outside_limits: { settledIn: "prove", weight: "person" },
  rail_wrong_sign: { settledIn: "prove", weight: "person" },
  output_not_read: { settledIn: "prove", weight: "light" },
  ripple_not_measured: { settledIn: "prove", weight: "light" },
  ripple_above_limit: { settledIn: "prove", weight: "plain" },
  ripple_unexplained: { settledIn: "prove", weight: "light" },
  nothing_measured: { settledIn: "measure", weight: "plain" },
  never_powered: { settledIn: "prove", weight: "plain" },
  supply_not_checked: { settledIn: "intake", weight: "light" },
  bulk_not_named: { settledIn: "make-safe", weight: "plain" },
  charge_not_verified: { settledIn: "make-safe", weight: "plain" },
  power_gate_shut: { settledIn: "make-safe", weight: "person" },
  powered_against_gate: { settledIn: "make-safe", weight: "plain" },
  earth_screws_missing: { settledIn: "rework", weight: "earth" },
  earth_bond_high: { settledIn: "prove", weight: "earth" },
  insulation_low: { settledIn: "prove", weight: "earth" },
  not_put_back: { settledIn: "rework", weight: "plain" },
  temporary_part: { settledIn: "rework", weight: "plain" },
  damage_open: { settledIn: "rework", weight: "plain" },
  mend_not_shown: { settledIn: "rework", weight: "plain" },
  glue_curing: { settledIn: "rework", weight: "plain" },
  sink_insulation_low: { settledIn: "rework", weight: "person" },
  sink_insulation_not_read: { settledIn: "rework", weight: "light" },
  work_check_open: { settledIn: "rework", weight: "light" },
  device_bad: { settledIn: "rework", weight: "plain" },
  finding_unexplained: { settledIn: "judge", weight: "light" },
  check_open: { settledIn: "judge", weight: "light" },
} as const satisfies Readonly<Record<string, CodeFacts>>;

export type OpenPointCode = keyof typeof pointFacts;
export const settledIn = (code: OpenPointCode): Lens => pointFacts[code].settledIn;
export const weightOf = (code: OpenPointCode): PointWeight => pointFacts[code].weight;

/** Something that was logged or left out and that a job must not be closed over in silence. */
export interface OpenPoint {
  /** Stable over recomputation, so that an acceptance keeps hold of it. */
  readonly key: string;
  readonly code: OpenPointCode;
  /** Designator or rail name, or the code of a finding or fault, as the sentence needs it. */
  readonly subject: string;
  readonly positionId: string | null;
  readonly netId: string | null;
}

/** A point of the unit, or of one of its parts or rails. */
export function openPoint(
  code: OpenPointCode,
  subject = "",
  of: { readonly positionId?: string; readonly netId?: string | null } = {},
): OpenPoint {
  const { positionId = null, netId = null } = of;
  const where = positionId ?? netId;
  return { key: where ? `${code}:${where}` : code, code, subject, positionId, netId };
}
