import type { NewPowerEvent } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only; whether power-up steps are offered is folded by core. */
export interface PowerEventDbRow extends Omit<NewPowerEvent, "at" | "clockId">, FactColumns {
  jobId: string;
  at: Date;
}

export const powerEvents = (sequelize: Sequelize) =>
  defineTable<PowerEventDbRow>(sequelize, "power_events", {
    id: column.key,
    jobId: column.id,
    kind: column.text,
    resistanceOhms: column.real,
    hasShort: column.flag,
    note: column.text,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });
