import type { NewTeardownReturn } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only; the latest of a step stands. */
export interface TeardownReturnDbRow extends Omit<NewTeardownReturn, "at" | "clockId">, FactColumns {
  jobId: string;
  at: Date;
}

export const teardownReturns = (sequelize: Sequelize) =>
  defineTable<TeardownReturnDbRow>(sequelize, "teardown_returns", {
    id: column.key,
    jobId: column.id,
    stepId: column.id,
    countIn: column.whole,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });
