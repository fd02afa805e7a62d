import type { NewJobAct } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only; what stands is drawn by core. */
export interface JobActDbRow extends Omit<NewJobAct, "at" | "clockId">, FactColumns {
  jobId: string;
  at: Date;
}

export const jobActs = (sequelize: Sequelize) =>
  defineTable<JobActDbRow>(sequelize, "job_acts", {
    id: column.key,
    jobId: column.id,
    kind: column.text,
    subjectId: column.id,
    word: column.text,
    note: column.typed,
    value: column.real,
    numbers: column.json,
    photoId: column.id,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });
