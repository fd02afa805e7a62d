import type { CheckState, Outcome, PointWeight, RetestReason } from "@pale-cap/core";

/** How a job ends, and what leaves the shop then. */
export const outcomeLabels: Readonly<Record<Outcome, string>> = {
  repaired: "repaired",
  not_repaired: "not repaired, tagged",
  declined: "declined",
  scrapped: "scrapped",
  no_fault_found: "no fault found",
};

/** What the tag says on a unit that goes back unrepaired. */
export const notRepairedTag =
  "Not repaired: not to be used. Its protective earth or its insulation is not as it must be.";

/** Reasons that are picked with one key; any other is typed. */
export const usualReasons: Readonly<Record<Exclude<PointWeight, "earth">, readonly string[]>> = {
  light: ["not measured", "the customer declined it", "cannot be reached", "not part of this fault"],
  plain: ["the customer declined it", "part on order", "left as it is on purpose", "measured elsewhere"],
  person: ["the customer knows and wants it so", "within what the host takes"],
};

export const notMeasured = usualReasons.light[0] as string;

export const checkStateLabels: Readonly<Record<CheckState, string>> = {
  passed: "within",
  failed: "outside",
  wrong_sign: "wrong sign",
  unexplained: "good since, not explained",
  part_load: "part load",
  as_new: "as new parts leave it",
  not_measured: "not measured",
  no_limit: "no limit known",
};

export const retestLabels: Readonly<Record<RetestReason, string>> = {
  probe: "the probe",
  load_lead: "the load's lead",
  typing: "a slip in typing",
};
