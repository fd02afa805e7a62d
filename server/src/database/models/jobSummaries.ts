import type { BenchLine, Realm } from "@pale-cap/contract";
import type { Lens } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** What the bench shows of a job, folded after a write; can be made anew from the rest at any time. */
export interface JobSummaryRow {
  jobId: string;
  realm: Realm;
  number: number;
  isClosed: boolean;
  isStale: boolean;
  /** Counts the marks: a fold that was overtaken by a write leaves the job stale. */
  marked: number;
  /** The core that folded it. */
  foldedBy: string | null;
  lens: Lens;
  openPointCount: number;
  chargeName: BenchLine["chargeName"];
  chargeVolts: number | null;
  chargeAt: Date | null;
  /** Until when its verification counts. */
  chargeUntil: Date | null;
  dueOn: string | null;
  lateFactCount: number;
  searchText: string;
}

export const jobSummaries = (sequelize: Sequelize) =>
  defineTable<JobSummaryRow>(sequelize, "job_summaries", {
    jobId: column.key,
    realm: column.text,
    number: column.whole,
    isClosed: column.flag,
    isStale: column.flag,
    marked: column.count,
    foldedBy: column.text,
    lens: column.text,
    openPointCount: column.whole,
    chargeName: column.text,
    chargeVolts: column.real,
    chargeAt: column.moment,
    chargeUntil: column.moment,
    dueOn: column.day,
    lateFactCount: column.whole,
    searchText: column.text,
  });
