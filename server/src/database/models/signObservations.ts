import type { SignState, VisualSign } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only. */
export interface SignObservationRow extends FactColumns {
  id: string;
  jobId: string;
  fittedPartId: string | null;
  /** Of a part that is no capacitor: its place. */
  positionId: string | null;
  sign: VisualSign;
  state: SignState;
  observedAt: Date;
  personId: string | null;
}

export const signObservations = (sequelize: Sequelize) =>
  defineTable<SignObservationRow>(sequelize, "sign_observations", {
    id: column.key,
    jobId: column.id,
    fittedPartId: column.id,
    positionId: column.id,
    sign: column.text,
    state: column.text,
    observedAt: column.moment,
    personId: column.id,
    ...factColumns,
  });
