import type { VerdictWord } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only: a later row of the same part overrides, one without a verdict takes it back. */
export interface VerdictOverruleRow extends FactColumns {
  id: string;
  jobId: string;
  fittedPartId: string;
  verdict: VerdictWord | null;
  reason: string;
  at: Date;
  personId: string | null;
}

export const verdictOverrules = (sequelize: Sequelize) =>
  defineTable<VerdictOverruleRow>(sequelize, "verdict_overrules", {
    id: column.key,
    jobId: column.id,
    fittedPartId: column.id,
    verdict: column.text,
    reason: column.typed,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });
