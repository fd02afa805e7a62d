import type { NewChargeEvent } from "@pale-cap/contract";
import type { LineSide } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only; the state is folded by core. */
export interface ChargeEventDbRow
  extends Omit<NewChargeEvent, "at" | "clockId" | "isDrainOn" | "lineSide" | "isSimulated">,
    FactColumns {
  jobId: string;
  at: Date;
  isDrainOn: boolean;
  lineSide: LineSide | null;
  isSimulated: boolean;
}

export const chargeEvents = (sequelize: Sequelize) =>
  defineTable<ChargeEventDbRow>(sequelize, "charge_events", {
    id: column.key,
    jobId: column.id,
    storeId: column.id,
    kind: column.text,
    volts: column.real,
    resistanceOhms: column.real,
    drainItem: column.json,
    isMeterProved: column.flag,
    isDrainOn: column.flag,
    lineSide: column.text,
    isSimulated: column.flag,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });
