import type { StockItemValues, StockMarking } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** A heap of equal parts in a drawer; how many is the sum of its movements. */
export interface StockItemRow extends StockItemValues {
  id: string;
  version: number;
  cataloguePartId: string | null;
  marking: StockMarking | null;
  setAsideReason: string | null;
}

export const stockItems = (sequelize: Sequelize) =>
  defineTable<StockItemRow>(sequelize, "stock_items", {
    id: column.key,
    version: column.whole,
    cataloguePartId: column.id,
    marking: column.json,
    drawer: column.text,
    origin: column.text,
    lot: column.text,
    dateCode: column.text,
    receivedOn: column.day,
    usedHours: column.real,
    note: column.text,
    setAsideReason: column.text,
  });
