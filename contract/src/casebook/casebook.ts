import type {
  BetaInterval,
  Calibration,
  Outcome,
  PartKind,
  PlacePattern,
  RecordedChange,
  Section,
  SeriesLife,
  TeardownKind,
  VisualSign,
} from "@pale-cap/core";
import type { InferType } from "yup";
import type { Attachment, BenchNotes } from "../boardTypes/boardType";
import { boolean, nullableId, nullableText, number, strictObject } from "../fields/fields";
import type { ComebackKind } from "../jobs/job";

export const casebookPageSize = 50;
/** So many jobs leave in one bundle. */
export const casebookBundleLimit = 60;

/** What is looked for, and what narrows it; all of it stands in the address. */
export const casebookQuerySchema = strictObject({
  search: nullableText(120),
  deviceKind: nullableText(40),
  /** As `modelKey` gives it. */
  model: nullableText(200),
  boardTypeId: nullableId(),
  symptom: nullableText(60),
  cause: nullableText(80),
  series: nullableText(80),
  /** Only what came back. */
  hasReturned: boolean().required(),
  offset: number().integer().min(0).max(100_000).required(),
});
export type CasebookQuery = InferType<typeof casebookQuerySchema>;

/** One job as the casebook tells it: what was wrong, what it took, and whether it came back. */
export interface CasebookLine {
  readonly id: string;
  readonly number: number;
  readonly isForeign: boolean;
  readonly deviceKind: string;
  readonly deviceMaker: string | null;
  readonly deviceModel: string | null;
  readonly complaint: string | null;
  /** null: still open. */
  readonly closedAt: string | null;
  readonly outcome: Outcome | null;
  /** Faults that were shown. */
  readonly causes: readonly string[];
  /** Places that were shown to have failed, by their names on the board. */
  readonly failed: readonly string[];
  readonly replaced: readonly string[];
  readonly spentMinutes: number | null;
  readonly partsMinor: number | null;
  readonly returnedAs: ComebackKind | "unknown" | null;
  readonly returnedNumber: number | null;
}

export interface CasebookPage {
  readonly lines: readonly CasebookLine[];
  readonly total: number;
  readonly nextOffset: number | null;
  /** Words that were looked for as something else that is spelt nearly so. */
  readonly respelt: readonly { readonly asked: string; readonly taken: readonly string[] }[];
  /** Whether every closed job is in it; until then more come. */
  readonly isSettled: boolean;
}

/** Of which kind: a model by its maker and name, or a board type. */
export const kindQuerySchema = strictObject({
  maker: nullableText(80),
  model: nullableText(80),
  boardTypeId: nullableId(),
});
export type KindQuery = InferType<typeof kindQuerySchema>;

export interface CountedShare {
  readonly count: number;
  readonly total: number;
  /** null: too few to count on. */
  readonly share: BetaInterval | null;
}

export interface KindPlace extends PlacePattern {
  readonly partKind: PartKind;
  readonly section: Section | null;
  /** What went in there most often, and how often it went in. */
  readonly fittedLabel: string | null;
  readonly fittedCount: number;
  /** Of those: back with this place bad again. */
  readonly fittedReturnedCount: number;
  readonly fittedCataloguePartId: string | null;
  /** Of that part in the drawers; null where the catalogue does not know it. */
  readonly inDrawers: number | null;
}

export interface KindPhoto {
  readonly photoId: string;
  readonly jobId: string;
  readonly jobNumber: number;
  readonly caption: string | null;
  /** Marked places that were shown to be bad, or to be good; none of either: not told. */
  readonly bad: readonly string[];
  readonly good: readonly string[];
}

/** What the shop has seen of one model or of one board type. */
export interface KindPage {
  readonly deviceKind: string | null;
  readonly deviceMaker: string | null;
  readonly deviceModel: string | null;
  readonly boardTypeId: string | null;
  readonly boardTypeName: string | null;
  /** The one that was closed last: its board is drawn for all. */
  readonly latestJobId: string | null;
  /** Closed jobs of it, and open ones. */
  readonly seenCount: number;
  readonly openCount: number;
  /** Other shops' of those that are seen: kept apart, in no count here. */
  readonly foreignCount: number;
  readonly fewestCount: number;
  readonly outcomes: Readonly<Record<string, number>>;
  readonly places: readonly KindPlace[];
  readonly causes: readonly (CountedShare & { readonly fault: string })[];
  /** How many jobs told their cause by a test. */
  readonly shownCount: number;
  readonly symptoms: readonly {
    readonly symptom: string;
    readonly count: number;
    /** Of those: the cause that was shown most often with it. */
    readonly cause: string | null;
    readonly causeCount: number;
  }[];
  readonly medianMinutes: number | null;
  readonly minutesCount: number;
  readonly medianPartsMinor: number | null;
  readonly partsCount: number;
  readonly repairedCount: number;
  /** Of the repaired: back within so many days with the same fault, and how many were out that long. */
  readonly comebacks: readonly (CountedShare & { readonly days: number })[];
  readonly used: readonly { readonly label: string; readonly count: number }[];
  /** As the job that was closed last took it apart. */
  readonly opening: {
    readonly jobNumber: number;
    readonly steps: readonly {
      readonly number: number;
      readonly kind: TeardownKind;
      readonly count: number;
      readonly size: string | null;
      readonly place: string | null;
    }[];
  } | null;
  readonly damage: readonly { readonly what: string; readonly place: string | null; readonly count: number }[];
  readonly benchNotes: BenchNotes | null;
  readonly leastLoads: readonly { readonly rail: string; readonly amps: number }[];
  readonly papers: readonly Attachment[];
  readonly photos: readonly KindPhoto[];
}

export const seriesQuerySchema = strictObject({
  series: nullableText(80),
  section: nullableText(40),
  warmth: nullableText(10),
  /** Held against this one. */
  against: nullableText(80),
});
export type SeriesQuery = InferType<typeof seriesQuerySchema>;

export interface SeriesLine {
  readonly series: string;
  readonly name: string;
  readonly makers: readonly string[];
  readonly foundCount: number;
  readonly failedCount: number;
  readonly fittedCount: number;
  readonly share: BetaInterval | null;
}

/** Which parts of a series are told apart: found on boards, fitted from trusted stock, salvaged, of a lot that was held suspect. */
export interface SeriesPage extends SeriesLine {
  readonly life: SeriesLife;
  readonly sections: readonly Section[];
  /** Salvaged parts that were fitted here, and parts of lots that were set aside: told apart, in no curve. */
  readonly apart: readonly {
    readonly what: "salvaged" | "suspect_lot";
    readonly lot: string | null;
    readonly count: number;
    readonly failedCount: number;
  }[];
  readonly lots: readonly {
    readonly lot: string;
    readonly count: number;
    readonly failedCount: number;
    readonly isWorse: boolean;
  }[];
  /** Chance that it lives shorter than the other; null where of one of them no life can be told. */
  readonly against: {
    readonly name: string;
    readonly shorterProbability: number | null;
    readonly life: SeriesLife;
  } | null;
  /** How many of them had their hours a day told; the others are reckoned with the usual. */
  readonly toldHoursCount: number;
}

/** One thing that closed jobs moved, with what it was, and whether it is left out. */
export interface ChangeLine extends RecordedChange {
  /** Its name in the house rule that leaves changes out. */
  readonly code: string;
  readonly scope: string;
  readonly isLeftOut: boolean;
}

export const qualityQuerySchema = strictObject({ personId: nullableId() });
export const signPhotosQuerySchema = strictObject({ partKind: nullableText(40) });

/** A photo of a closed job whose pen mark names a place where a sign was seen. */
export interface SignPhoto {
  readonly photoId: string;
  readonly jobId: string;
  readonly jobNumber: number;
  readonly designator: string;
  readonly partKind: PartKind;
  readonly sign: VisualSign;
}

export interface QualityPage {
  /** Of the chance that was told in circuit against what the part's own number showed off the board; null without any. */
  readonly calibration: Calibration | null;
  readonly bins: readonly (BetaInterval | null)[];
  /** Overrules, by whether the part was then shown to be as the person said. */
  readonly overrules: readonly {
    readonly computed: string;
    readonly said: string;
    readonly rightCount: number;
    readonly wrongCount: number;
    readonly openCount: number;
  }[];
  /** Tests by what they told of the cause that was shown in the end, best first. */
  readonly tests: readonly { readonly finding: string; readonly meanBits: number; readonly count: number }[];
  /** Quoted minutes against those that it took; null below the fewest. */
  readonly minutes: {
    readonly medianRatio: number;
    readonly lowRatio: number;
    readonly highRatio: number;
    readonly count: number;
  } | null;
  readonly minutesCount: number;
  /** Repaired units that were back with the same fault. */
  readonly comebacks: CountedShare;
  readonly jobCount: number;
  readonly fewestCount: number;
}
