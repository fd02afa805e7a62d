import type { NewPowerEvent, testedAs } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

type Tested = ReturnType<typeof testedAs>;

/** Append-only; whether power-up steps are offered is folded by core. */
export interface PowerEventDbRow
  extends Omit<NewPowerEvent, "at" | "clockId" | keyof Tested>,
    Omit<Tested, "values">,
    FactColumns {
  jobId: string;
  at: Date;
  /** `values` is a word of the database's own. */
  checkValues: Tested["values"];
}

export const powerEvents = (sequelize: Sequelize) =>
  defineTable<PowerEventDbRow>(sequelize, "power_events", {
    id: column.key,
    jobId: column.id,
    kind: column.text,
    resistanceOhms: column.real,
    hasShort: column.flag,
    item: column.text,
    subjectId: column.id,
    checkValues: column.json,
    reason: column.typed,
    rig: column.json,
    sign: column.text,
    note: column.typed,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });
