import type { ReworkStep } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only; a later tick of the same step overrides. */
export interface ReworkTickRow extends FactColumns {
  id: string;
  jobId: string;
  positionId: string;
  step: ReworkStep;
  isDone: boolean;
  /** What a later opening of a closed job needs to carry out a tick that came too late. */
  fittedPartId: string | null;
  stripeDegrees: number | null;
  at: Date;
  personId: string | null;
}

export const reworkTicks = (sequelize: Sequelize) =>
  defineTable<ReworkTickRow>(sequelize, "rework_ticks", {
    id: column.key,
    jobId: column.id,
    positionId: column.id,
    step: column.text,
    isDone: column.flag,
    fittedPartId: column.id,
    stripeDegrees: column.real,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });
