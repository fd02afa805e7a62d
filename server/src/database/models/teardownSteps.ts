import type { TeardownStepRow } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface TeardownStepDbRow extends Omit<TeardownStepRow, "doneAt" | "version"> {
  jobId: string;
  version: number;
  isRemoved: boolean;
  doneAt: Date;
  personId: string | null;
}

export const teardownSteps = (sequelize: Sequelize) =>
  defineTable<TeardownStepDbRow>(sequelize, "teardown_steps", {
    id: column.key,
    jobId: column.id,
    version: column.whole,
    number: column.whole,
    kind: column.text,
    count: column.whole,
    size: column.text,
    place: column.text,
    photoId: column.id,
    isRemoved: column.flag,
    doneAt: column.moment,
    personId: column.id,
  });
