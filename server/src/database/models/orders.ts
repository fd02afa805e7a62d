import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface OrderDbRow {
  id: string;
  version: number;
  supplierId: string;
  at: Date;
  note: string | null;
  isClosed: boolean;
  personId: string | null;
}

export const orders = (sequelize: Sequelize) =>
  defineTable<OrderDbRow>(sequelize, "orders", {
    id: column.key,
    version: column.whole,
    supplierId: column.id,
    at: column.moment,
    note: column.text,
    isClosed: column.flag,
    personId: column.id,
  });
