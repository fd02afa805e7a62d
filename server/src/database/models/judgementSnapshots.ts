import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** What was judged when a job was handed over, so that its report can be reproduced. */
export interface JudgementSnapshotRow extends FactColumns {
  id: string;
  jobId: string;
  coreVersion: string;
  constants: unknown;
  rules: unknown;
  readingIds: string[];
  result: unknown;
  takenAt: Date;
}

export const judgementSnapshots = (sequelize: Sequelize) =>
  defineTable<JudgementSnapshotRow>(sequelize, "judgement_snapshots", {
    id: column.key,
    jobId: column.id,
    coreVersion: column.text,
    constants: column.json,
    rules: column.json,
    readingIds: column.ids,
    result: column.json,
    takenAt: column.moment,
    ...factColumns,
  });
