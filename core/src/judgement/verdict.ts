import type { BaselineValue } from "../board/baseline";
import type { BoardPosition, FittedPart } from "../board/board";
import type { Section } from "../board/sections";
import type { ExpectedEsr } from "../capacitors/expectedEsr";
import type { JudgementRules } from "../facts/jobRules";
import type { VerdictWord } from "../facts/overrules";
import type { RecordLevel } from "../facts/shopRecord";
import type { SignState, VisualSign } from "../facts/visualSigns";
import type { PartInterval } from "../incircuit/bankIntervals";
import type { Reading } from "../readings/reading";
import type { GradeFlag } from "./gradePart";

/** One line of the evidence ledger: facts, worded by the interface. */
export interface LedgerEntry {
  readonly kind:
    | "esr"
    | "capacitance"
    | "voltage_loss"
    | "leakage"
    | "sign"
    | "bank"
    | "tester"
    | "touch"
    | "baseline"
    | "record"
    | "rule"
    | "missing";
  readonly code: string;
  readonly value: number | null;
  readonly expectation: { readonly low: number; readonly typical: number; readonly high: number } | null;
  /** Limit at which the school calls the part failed, in the unit of the value. */
  readonly failedLimit: number | null;
  readonly source: string;
  /**
   * How far this entry alone moves the log-odds of "failed" from the prior; positive speaks against the part. Entries
   * overlap, so weights do not simply add up to the verdict.
   */
  readonly weight: number | null;
  readonly readingIds: readonly string[];
}

/** What a person decided against, or in place of, the computed verdict. */
export interface Overrule {
  readonly verdict: VerdictWord;
  readonly reason: string;
  readonly at: string;
}

export interface PartJudgement {
  readonly positionId: string;
  /** What counts: a person's word where there is one, else the computed verdict. */
  readonly verdict: VerdictWord;
  readonly computedVerdict: VerdictWord;
  readonly overrule: Overrule | null;
  readonly failedProbability: number | null;
  readonly wornProbability: number | null;
  /** Chance that it leaks, which is a part of the chance that it has failed; null where that is. */
  readonly leakProbability: number | null;
  readonly flags: readonly GradeFlag[];
  /** A vent, leak or lifted base: replace whatever the readings say, unless a person overruled it. */
  readonly mustReplace: boolean;
  readonly expected: ExpectedEsr | null;
  readonly interval: PartInterval | null;
  readonly bankPositionIds: readonly string[];
  /** The part of the bank whose lifted lead would tell most; null where nothing is masked. */
  readonly leadToLiftId: string | null;
  /** What the leads add to every ESR of its board. */
  readonly leads: LeadsFinding;
  readonly ledger: readonly LedgerEntry[];
}

/** What a board's readings say of one part, leaks apart. */
export interface PartChance {
  readonly failedProbability: number;
  /** Worn or worse. */
  readonly wornProbability: number;
  /** New ESR of its series over the expected one, as all of its bank has it. */
  readonly seriesRatio: number;
}

/** What the leads add to every ESR of a board. */
export interface LeadsFinding {
  /** Mean of what they may add, where they add something. */
  readonly ohms: number;
  /** Chance that they add anything. */
  readonly probability: number;
  readonly isMeasured: boolean;
  /** How many ESR readings say so. */
  readonly readingCount: number;
}

export interface BoardChances {
  readonly byPart: ReadonlyMap<string, PartChance>;
  readonly leads: LeadsFinding;
}

/** A fitted part with the place it sits at. */
export interface PlacedPart {
  readonly position: BoardPosition;
  readonly part: FittedPart;
}

/** What surrounds a bank at the probe. */
export interface BankSurroundings {
  /** Parts of the next bank, across the choke; empty where there is none. */
  readonly acrossChoke: readonly PlacedPart[];
  readonly chokeHenrys: number | null;
  readonly chokeOhms: number;
  /** Its inductance is entered, and not only that it is there. */
  readonly isChokeKnown: boolean;
  /** What lies parallel to the bank, measured cold; null: nothing that was measured. */
  readonly parallelOhms: number | null;
  /** In series: every part is alone between its two nodes, as in a voltage doubler. */
  readonly isSeries: boolean;
}

export const openSurroundings: BankSurroundings = {
  acrossChoke: [],
  chokeHenrys: null,
  chokeOhms: 0,
  isChokeKnown: false,
  parallelOhms: null,
  isSeries: false,
};

/** How parts like one did in the shop's record. */
export interface PartHistory {
  readonly level: RecordLevel;
  /** What was counted: a designator, or a series at its section. */
  readonly subject: string;
  /** How many parts the default is worth beside them. */
  readonly defaultWeight: number;
  readonly failedCount: number;
  readonly seenCount: number;
}

export interface JudgementQuestion {
  readonly subject: PlacedPart;
  /** Every part of the bank, the subject included. */
  readonly bank: readonly PlacedPart[];
  readonly surroundings?: BankSurroundings;
  /** Where its net belongs; absent: not told. */
  readonly section?: Section;
  /** Standing readings on the subject. */
  readonly readings: readonly Reading[];
  /** Standing readings on any part of the bank or on the bank itself. */
  readonly bankReadings: readonly Reading[];
  readonly signs: Readonly<Partial<Record<VisualSign, SignState>>>;
  readonly rules: JudgementRules;
  /** null or absent: the record has nothing yet, and counts for nothing. */
  readonly history?: PartHistory | null;
  /** What a known-good unit, or the board type's history, reads at this place. */
  readonly baseline?: readonly BaselineValue[];
  readonly overrule?: Overrule | null;
}
