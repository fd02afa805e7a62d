import type { ReworkStep } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Append-only; a later tick of the same step overrides. */
export interface ReworkTickRow {
  id: string;
  jobId: string;
  positionId: string;
  step: ReworkStep;
  isDone: boolean;
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
    at: column.moment,
    personId: column.id,
  });
