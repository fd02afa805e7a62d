import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only: a job was handed over, or opened again; each with its note. */
export interface JobClosingRow extends FactColumns {
  id: string;
  jobId: string;
  isReopened: boolean;
  note: string | null;
  warrantyUntil: string | null;
  spentMinutes: number | null;
  at: Date;
  personId: string | null;
}

export const jobClosings = (sequelize: Sequelize) =>
  defineTable<JobClosingRow>(sequelize, "job_closings", {
    id: column.key,
    jobId: column.id,
    isReopened: column.flag,
    note: column.typed,
    warrantyUntil: column.day,
    spentMinutes: column.real,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });
