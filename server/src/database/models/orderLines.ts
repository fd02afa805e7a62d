import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface OrderLineDbRow {
  id: string;
  orderId: string;
  place: number;
  cataloguePartId: string;
  count: number;
  unitMinor: number;
}

export const orderLines = (sequelize: Sequelize) =>
  defineTable<OrderLineDbRow>(sequelize, "order_lines", {
    id: column.key,
    orderId: column.id,
    place: column.whole,
    cataloguePartId: column.id,
    count: column.whole,
    unitMinor: column.whole,
  });
