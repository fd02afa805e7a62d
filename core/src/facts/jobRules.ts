import type { RailRules } from "../board/railRules";
import type { EsrSourceSchool } from "../capacitors/expectedEsrOfPart";
import type { TesterMode } from "../capacitors/testerReading";
import type { SchoolName } from "../constants/judgementConstants";
/** `condemn_only`: in circuit condemns, out of circuit clears. `bank_bound`: a bound over the whole bank clears too. */
export type InCircuitSchool = "condemn_only" | "bank_bound";

/** Whether a look that found nothing counts for a part. It never clears one. */
export type CleanLookSchool = "means_nothing" | "counts_a_little";

export interface JudgementRules {
  readonly school: SchoolName;
  readonly inCircuitSchool: InCircuitSchool;
  readonly esrSourceSchool: EsrSourceSchool;
  readonly cleanLookSchool: CleanLookSchool;
  /** A part is called failed from this chance on. */
  readonly failedFromRatio: number;
  /** Worn or worse from this chance on. */
  readonly wornFromRatio: number;
  /** Sound only up to this chance of having failed. */
  readonly soundUpToRatio: number;
  /** One standard deviation of an ESR reading, relative. */
  readonly esrUncertaintyRatio: number;
  /** Contact and lead resistance left after zeroing, one standard deviation. */
  readonly contactOhms: number;
  readonly capacitanceUncertaintyRatio: number;
  /** What the leads add to every ESR reading; 0 where they are zeroed. */
  readonly leadOhms: number;
  /** Whether the shop's meter shows the resistive part or the whole impedance. */
  readonly testerShows: TesterMode;
}

export interface ChargeRules {
  /** At or below this a store counts as drained. */
  readonly workingVolts: number;
  /** A verification older than this counts no more: dielectric absorption brings voltage back. */
  readonly reverifySeconds: number;
  /** So long after a first low reading a second one tells whether the charge came back. */
  readonly waitSeconds: number;
}

/** What the house rules say to a job as a whole. */
export interface JobRules {
  readonly judgement: JudgementRules;
  readonly charge: ChargeRules;
  readonly rail: RailRules;
  readonly safety: { readonly earthBondOhms: number; readonly leastInsulationOhms: number };
}
