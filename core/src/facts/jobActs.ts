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
] as const;
export type JobActKind = (typeof jobActKinds)[number];

export interface JobAct extends LoggedFact {
  readonly kind: JobActKind;
  /** The position, net or board that it was done to; null: the unit. */
  readonly subjectId: string | null;
  /** What was chosen, as a code of its kind. */
  readonly word: string | null;
  readonly note: string | null;
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
};

/** How the job is to end, by what was said last; a repair unless somebody said otherwise. */
export function outcomeOf(acts: readonly JobAct[]): Outcome {
  const last = inOrder(acts.filter((act) => act.kind === "outcome")).at(-1);
  return outcomes.find((one) => one === last?.word) ?? "repaired";
}
