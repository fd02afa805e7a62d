import type { NewStockAct } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface StockActDbRow extends NewStockAct {
  sequence: number;
  at: Date;
  itemId: string;
}

export const stockActs = (sequelize: Sequelize) =>
  defineTable<StockActDbRow>(sequelize, "stock_acts", {
    id: column.key,
    sequence: column.count,
    at: column.moment,
    personId: column.id,
    itemId: column.id,
    kind: column.text,
    value: column.real,
    volts: column.real,
    seconds: column.real,
    riseKelvin: column.real,
    frequencyHertz: column.real,
    note: column.text,
  });
