import type {
  Family,
  FamilyGrid,
  HandOver,
  HouseRuleChange,
  PaperSize,
  QualityPage,
  ReportAudience,
  ReportDocument,
  RuleEffect,
  SeriesPage,
  SeriesQuery,
} from "@pale-cap/contract";
import type { Debrief } from "@pale-cap/core";
import type { PracticeQuestion } from "../practice/debriefJob";
import type { ReportDocuments } from "../reports/drawReport";
import type { Judged } from "./judgeJob";

/** What was worked out of a closing before the job is held. */
export interface PreparedHandOver {
  readonly judged: Judged;
  readonly documents: ReportDocuments;
}

export interface ReportFileQuestion {
  readonly audience: ReportAudience;
  /** null: as the job stands. */
  readonly document: ReportDocument | null;
  /** null: the shop's own. */
  readonly paper: PaperSize | null;
  readonly madeAt: Date;
}

/** Judging and folding: long enough that no request may wait behind it. */
export interface HeavyWork {
  /** Something was written: summaries that it marked are folded soon. */
  poke(): void;
  /** Resolves when nothing is marked any more. */
  settled(): Promise<void>;
  ruleEffects(change: HouseRuleChange): Promise<readonly RuleEffect[]>;
  family(jobId: string): Promise<Family>;
  /** The judgement as it stands, and both reports as they will be handed over; null where something stands against it. */
  prepareHandOver(jobId: string, body: HandOver): Promise<PreparedHandOver | null>;
  /** A report of a job as it stands. */
  report(jobId: string, audience: ReportAudience): Promise<ReportDocument>;
  /** On paper: as it stands, or as the document says that is given. */
  reportFile(jobId: string, asked: ReportFileQuestion): Promise<Uint8Array>;
  /** How long a series lives, by closed jobs. */
  series(query: SeriesQuery): Promise<SeriesPage>;
  /** How well the shop, or one person of it, judges. */
  quality(personId: string | null): Promise<QualityPage>;
  /** Units of a family side by side. */
  familyGrid(jobId: string): Promise<FamilyGrid>;
  /** A practice supply told again from its end. */
  debrief(question: PracticeQuestion): Promise<Debrief>;
  /** Index of the first of these 32-bit floats that is no finite number; -1 where all are. */
  firstNotFinite(bytes: Uint8Array): Promise<number>;
  close(): Promise<void>;
}
