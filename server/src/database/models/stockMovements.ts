import type { MovementKind } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface StockMovementDbRow {
  id: string;
  sequence: number;
  at: Date;
  personId: string | null;
  itemId: string;
  kind: MovementKind;
  countDelta: number;
  reservedDelta: number;
  /** The place that a piece is promised to, went into or came out of. */
  positionId: string | null;
  orderLineId: string | null;
  note: string | null;
}

export const stockMovements = (sequelize: Sequelize) =>
  defineTable<StockMovementDbRow>(sequelize, "stock_movements", {
    id: column.key,
    sequence: column.count,
    at: column.moment,
    personId: column.id,
    itemId: column.id,
    kind: column.text,
    countDelta: column.whole,
    reservedDelta: column.whole,
    positionId: column.id,
    orderLineId: column.id,
    note: column.text,
  });
