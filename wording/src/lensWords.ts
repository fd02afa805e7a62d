import type { Lens, LensState, OpenPoint } from "@pale-cap/core";
import { faultName, findingWords } from "./explanationWords";

export const lensLabels: Readonly<Record<Lens, string>> = {
  intake: "Intake",
  "make-safe": "Make safe",
  inspect: "Inspect",
  measure: "Measure",
  judge: "Judge",
  choose: "Choose",
  rework: "Rework",
  prove: "Prove",
  "hand-over": "Hand over",
};

export const lensStateLabels: Readonly<Record<LensState, string>> = {
  untouched: "untouched",
  open: "open",
  waiting: "waits for an earlier lens",
  done: "done",
  stale: "overtaken, look again",
};

/** An open point as a sentence. */
export function openPointWords(point: OpenPoint): string {
  const { subject } = point;
  switch (point.code) {
    case "part_not_replaced":
      return `${subject} was judged bad and is still in.`;
    case "part_not_refitted":
      return `${subject} was taken out and nothing was fitted.`;
    case "part_undecided":
      return `${subject} was measured, but the readings do not decide.`;
    case "polarity_unconfirmed":
      return `${subject}: polarity not confirmed twice.`;
    case "polarity_conflict":
      return `${subject}: the stripe does not point where the board's mark puts the negative side.`;
    case "polarity_not_recorded":
      return `${subject}: one of its two polarity records is missing.`;
    case "neighbour_not_read":
      return `${subject}, beside a part that failed, was never read.`;
    case "new_part_bad":
      return `${subject}: the new part reads failed.`;
    case "new_part_not_read":
      return `${subject}: the new part was never read.`;
    case "rail_part_load":
      return `${subject} was read at part load, not at what was promised.`;
    case "rail_unexplained":
      return `${subject} failed since the last act, reads well now, and nobody said why.`;
    case "rail_wrong_sign":
      return `${subject} has the wrong sign.`;
    case "output_not_read":
      return `${subject}: never read under power since the last act.`;
    case "nothing_measured":
      return "Nothing was measured on this job.";
    case "never_powered":
      return "Never powered since the last part went in.";
    case "supply_not_checked":
      return "Nobody checked that it is the supply: no swap, no bench feed, no reading under power.";
    case "bulk_not_named":
      return `${subject} can hold charge and was never named as a store.`;
    case "rail_not_loaded":
      return `${subject} was promised and not measured under load.`;
    case "rail_outside_limits":
      return `${subject} lies outside its limits.`;
    case "ripple_not_measured":
      return `${subject}: ripple not measured.`;
    case "ripple_above_limit":
      return `${subject}: ripple above its limit.`;
    case "charge_not_verified":
      return subject === "now"
        ? "Stored charge is not verified at this moment."
        : "Work was done on the mains side while stored charge was not verified.";
    case "power_gate_shut":
      return "Something blew or tripped, and the tests for shorts since are not complete.";
    case "powered_against_gate":
      return `The mains was connected ${subject === "1" ? "once" : `${subject} times`} while something stood against it.`;
    case "earth_screws_missing":
      return `${subject} earth screw${subject === "1" ? "" : "s"} not back in.`;
    case "earth_bond_high":
      return "The protective earth, plug to case, was read above its limit.";
    case "insulation_low":
      return "The insulation of the mains side was read below its limit.";
    case "temporary_part":
      return `${subject} is in for now only.`;
    case "damage_open":
      return `${subject}: the board was hurt there and nothing mends it yet.`;
    case "mend_not_shown":
      return `${subject}: mended, and no continuity at or below 50 mΩ shows it.`;
    case "glue_curing":
      return `${subject}: glue still cures.`;
    case "sink_insulation_low":
      return `${subject}: its insulation to the sink reads below 100 MΩ.`;
    case "sink_insulation_not_read":
      return `${subject}: its insulation to the sink was not read.`;
    case "work_check_open":
      return `${subject}: scraping, washing, drying or an insulator is not ticked.`;
    case "device_bad":
      return `${subject} reads bad, and no later reading says otherwise.`;
    case "finding_unexplained":
      return `Not explained: ${findingWords(subject)}.`;
    case "ripple_unexplained":
      return `${subject}: its captured ripple is more than its capacitors, as read, explain.`;
    case "check_open":
      return `Not tested: ${faultName(subject)}?`;
    case "not_put_back":
      return `${subject} step${subject === "1" ? "" : "s"} of taking apart not closed again.`;
  }
}
