import type { Realm } from "@pale-cap/contract";
import type { CaseTally, RecordLevel, TestWorth } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** What a closed job leaves behind for those that come after it; drawn from the job, and made anew with its summary. */
export interface ClosedJobRow {
  jobId: string;
  realm: Realm;
  number: number;
  /** It came in a bundle from another shop. */
  isForeign: boolean;
  deviceKind: string;
  deviceMaker: string | null;
  deviceModel: string | null;
  modelKey: string | null;
  boardTypeId: string | null;
  topology: string | null;
  ageYears: number | null;
  hoursPerDay: number | null;
  symptoms: string[];
  outcome: string | null;
  causes: string[];
  complaint: string | null;
  closedAt: Date;
  spentMinutes: number | null;
  quotedMinutes: number | null;
  partsMinor: number | null;
  personId: string | null;
  tests: readonly TestWorth[];
  /** What it says of the fault knowledge and of parts of its kind, as it was counted. */
  tallies: readonly StoredTally[];
}

/** One count of a closed job: of what kind, among which jobs, of what, and whether it was so. */
export interface StoredTally {
  readonly kind: CaseTally["kind"] | RecordLevel;
  readonly scope: string;
  readonly subject: string;
  readonly isSeen: boolean;
}

export const closedJobs = (sequelize: Sequelize) =>
  defineTable<ClosedJobRow>(sequelize, "closed_jobs", {
    jobId: column.key,
    realm: column.text,
    number: column.whole,
    isForeign: column.flag,
    deviceKind: column.text,
    deviceMaker: column.text,
    deviceModel: column.text,
    modelKey: column.text,
    boardTypeId: column.id,
    topology: column.text,
    ageYears: column.real,
    hoursPerDay: column.real,
    symptoms: column.texts,
    outcome: column.text,
    causes: column.texts,
    complaint: column.text,
    closedAt: column.moment,
    spentMinutes: column.real,
    quotedMinutes: column.real,
    partsMinor: column.real,
    personId: column.id,
    tests: column.json,
    tallies: column.json,
  });
