import { inOrder, type LoggedFact } from "../readings/factMoment";

/** How a job ends. Only a repaired one promises anything. */
export const outcomes = ["repaired", "not_repaired", "declined", "scrapped", "no_fault_found"] as const;
export type Outcome = (typeof outcomes)[number];

/** What stands for a board's own mark where it has none. */
export const polarityRecords = ["photo", "continuity"] as const;
export type PolarityRecord = (typeof polarityRecords)[number];

/** That a round begins, or that it was no beginning. */
export const roundWords = ["still_faulty", "taken_back"] as const;

/** What may have made a good rail read bad. */
export const retestReasons = ["probe", "load_lead", "typing"] as const;
export type RetestReason = (typeof retestReasons)[number];

/** Things that were done or decided on a job once, beside its readings, ticks and charge. */
export const jobActKinds = [
  "outcome",
  /** A place that is empty on purpose while something is tried. */
  "out_for_test",
  /** For one power-up: the board lies insulated, earth clipped on where it has one. */
  "board_insulated",
  /** The second record of a part's polarity where the board has no mark: a photo, or a pad that leads to the net's minus. */
  "polarity_seen",
  /** The trim of a rail was turned: what was read of it before proves nothing. */
  "trim_turned",
  /** Why a rail that failed reads well now, though nothing was changed on the unit. */
  "retest_explained",
  /** The unit was powered after the work and is still faulty: the next round begins; or that was pressed in error. */
  "still_faulty",
  /** A part that went in only for now: it stays open until one for good is in, or it is said to be for good. */
  "temporary_part",
  /** Where the old part of a place went. */
  "old_part_to",
  /** Continuity from a part to its net, before the first of the net comes out: shown, or that it leads elsewhere. */
  "on_net",
  /** A pad, via, trace or lead that was hurt at a place. */
  "damage",
  /** How it was bridged; the value is a wire's square metres or a trace's width in metres. */
  "mended",
  /** Ohms across what was mended. */
  "mend_read",
  /** Whether a joint of the place sits on a copper plane. */
  "joint_plane",
  /** Work that belongs to a removal or a fit, one key each; the value is ohms where it is a reading. */
  "work_done",
  /** Glue that was put on at a place; the value is the seconds that it cures. */
  "glue_set",
  /** A mechanical change, in words. */
  "mechanical",
  /** A place goes before another in the plan of work: the note holds the other's id. */
  "work_before",
  /** One start of an intermittent unit; the value is how long it was off, in seconds, the number how warm it was. */
  "cold_start",
  /** How often it failed before, of how many starts; and, where told, off for how long at least and how warm at most. */
  "starts_before",
  /** Seconds for which the outputs stood after the mains went: numbers are the bulk's volts before and after, and the watts drawn. */
  "hold_up",
  /** A step of a rail's load: numbers are amperes from and to, the dip in volts, and seconds until it was back (0: not read). */
  "load_step",
  /** Where a rail is read: at its terminals, or at the end of a lead whose ohms, there and back, are the value. */
  "read_at",
  /** A time by its name: the value in seconds, numbers the most it may be (0: nobody said), the note what it was read through. */
  "timing",
  /** With protective earth, or doubly insulated. */
  "protection_class",
  /** Insulation of mains to earth or to the outputs: the value in ohms, numbers the test's volts. */
  "insulation_read",
  /** Seconds for which it ran under load. */
  "burn_in",
  /** The complaint itself, tried again in the device. */
  "tried_in_device",
  /** Why a step of the proof is not done; the word is the step. */
  "step_not_done",
  /** The customer is to be called about what the note says; the value is the moment, in seconds since 1970. Or: was called. */
  "call_back",
] as const;

/** The steps of a proof, in their order. */
export const proofStepCodes = [
  ...(["cold_checks", "first_power", "over_voltage", "unloaded", "loaded", "ripple", "hold_up", "heat"] as const),
  ...(["burn_in", "cold_starts", "in_device", "earth_insulation"] as const),
] as const;
export type ProofStepCode = (typeof proofStepCodes)[number];
export const triedWords = ["good", "failed"] as const;
export const readPoints = ["terminals", "lead_end"] as const;
export const protectionClasses = ["I", "II"] as const;
/** Times that a repair is shown by; those of the primary are read with a probe there. */
export const timingNames = ["rails_up", "power_good", "standby_up", "off_to_down", "vcc_up"] as const;
export type TimingName = (typeof timingNames)[number];

/** What a board suffers under the iron. */
export const damageKinds = ["pad", "via", "trace", "lead"] as const;
export type DamageKind = (typeof damageKinds)[number];
export const mendWays = ["wire", "trace_foil", "eyelet", "to_next_pad"] as const;
export type MendWay = (typeof mendWays)[number];
export const jointPlanes = ["none", "one_side", "both_sides"] as const;
export type JointPlane = (typeof jointPlanes)[number];
export const oldPartPlaces = ["scrap", "drawer", "evidence"] as const;
export type OldPartPlace = (typeof oldPartPlaces)[number];
/** Each applies only where something asks for it. */
export const workKinds = [
  ...["adhesive_scraped", "alloy_cleared", "electrolyte_washed", "dried", "joints_seen", "leads_trimmed"],
  ...["insulator_in", "paste_on", "screw_tight", "sink_insulation", "taken_back"],
] as const;
export type WorkKind =
  | "adhesive_scraped"
  | "alloy_cleared"
  | "electrolyte_washed"
  | "dried"
  | "joints_seen"
  | "leads_trimmed"
  | "insulator_in"
  | "paste_on"
  | "screw_tight"
  | "sink_insulation";

export type JobActKind = (typeof jobActKinds)[number];

export interface JobAct extends LoggedFact {
  /** Absent in facts that nobody has to point at. */
  readonly id?: string;
  readonly kind: JobActKind;
  /** The position, net or board that it was done to; null: the unit. */
  readonly subjectId: string | null;
  /** What was chosen, as a code of its kind. */
  readonly word: string | null;
  readonly note: string | null;
  /** What was read or measured with it, in the unit of its kind; absent or null: nothing. */
  readonly value?: number | null | undefined;
  readonly numbers?: readonly number[] | null | undefined;
  readonly photoId?: string | null | undefined;
}

/** The words that an act of a kind may carry; null: none. */
export const jobActWords: Readonly<Record<JobActKind, readonly string[] | null>> = {
  outcome: outcomes,
  out_for_test: null,
  board_insulated: null,
  polarity_seen: polarityRecords,
  trim_turned: null,
  retest_explained: retestReasons,
  still_faulty: roundWords,
  temporary_part: ["for_now", "for_good"],
  old_part_to: oldPartPlaces,
  on_net: ["shown", "elsewhere"],
  damage: damageKinds,
  mended: mendWays,
  mend_read: null,
  joint_plane: jointPlanes,
  work_done: workKinds,
  glue_set: null,
  mechanical: null,
  work_before: null,
  cold_start: triedWords,
  starts_before: null,
  hold_up: null,
  load_step: null,
  read_at: readPoints,
  timing: timingNames,
  protection_class: protectionClasses,
  insulation_read: null,
  burn_in: null,
  tried_in_device: triedWords,
  step_not_done: [...proofStepCodes, "taken_back"],
  call_back: ["promised", "made"],
};

/** How many numbers an act of a kind carries: each of these counts will do. */
export const numbersOf: Readonly<Partial<Record<JobActKind, readonly number[]>>> = {
  cold_start: [0, 1],
  starts_before: [2, 4],
  timing: [1],
  hold_up: [3],
  load_step: [4],
  insulation_read: [1],
};

/** What an act of a kind must carry beside its word. */
export const jobActNeeds: Readonly<Partial<Record<JobActKind, "value" | "note">>> = {
  mend_read: "value",
  glue_set: "value",
  mechanical: "note",
  work_before: "note",
  hold_up: "value",
  insulation_read: "value",
  timing: "value",
  burn_in: "value",
  step_not_done: "note",
  call_back: "note",
};

/** The act of a kind on a subject that was stored last. */
export function lastActOf(acts: readonly JobAct[], kind: JobActKind, subjectId: string | null): JobAct | null {
  return inOrder(acts.filter((act) => act.kind === kind && act.subjectId === subjectId)).at(-1) ?? null;
}

/** How the job is to end, by what was said last; a repair unless somebody said otherwise. */
export function outcomeOf(acts: readonly JobAct[]): Outcome {
  const last = inOrder(acts.filter((act) => act.kind === "outcome")).at(-1);
  return outcomes.find((one) => one === last?.word) ?? "repaired";
}
