import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only: an open point that was accepted, and why. */
export interface OpenPointAcceptanceRow extends FactColumns {
  id: string;
  jobId: string;
  key: string;
  reason: string;
  acceptedAt: Date;
  personId: string | null;
}

export const openPointAcceptances = (sequelize: Sequelize) =>
  defineTable<OpenPointAcceptanceRow>(sequelize, "open_point_acceptances", {
    id: column.key,
    jobId: column.id,
    key: column.text,
    reason: column.typed,
    acceptedAt: column.moment,
    personId: column.id,
    ...factColumns,
  });
