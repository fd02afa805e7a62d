import type { TeardownReturnRow } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Append-only; the latest of a step stands. */
export interface TeardownReturnDbRow extends Omit<TeardownReturnRow, "at"> {
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
  });
