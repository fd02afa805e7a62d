import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** What lies in a drawer. */
export interface StockItemRow {
  id: string;
  cataloguePartId: string;
  drawer: string | null;
  count: number;
}

export const stockItems = (sequelize: Sequelize) =>
  defineTable<StockItemRow>(sequelize, "stock_items", {
    id: column.key,
    cataloguePartId: column.id,
    drawer: column.text,
    count: column.whole,
  });
