import type { NewReading } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only. */
export interface ReadingDbRow extends Omit<NewReading, "measuredAt" | "clockId" | "isSimulated">, FactColumns {
  jobId: string;
  measuredAt: Date;
  isSimulated: boolean;
}

export const readings = (sequelize: Sequelize) =>
  defineTable<ReadingDbRow>(sequelize, "readings", {
    id: column.key,
    jobId: column.id,
    targetKind: column.text,
    targetId: column.id,
    fittedPartId: column.id,
    quantity: column.text,
    value: column.real,
    coarseCode: column.text,
    terminals: column.text,
    uncertainty: column.real,
    circuitState: column.text,
    frequencyHertz: column.real,
    temperatureCelsius: column.real,
    isPowered: column.flag,
    loadAmps: column.real,
    rig: column.json,
    rawText: column.text,
    instrument: column.text,
    isSimulated: column.flag,
    isWithdrawn: column.flag,
    supersedesId: column.id,
    measuredAt: column.moment,
    personId: column.id,
    ...factColumns,
  });
