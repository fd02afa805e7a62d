import type { OfferRow } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface OfferDbRow extends OfferRow {
  supplierId: string;
}

export const offers = (sequelize: Sequelize) =>
  defineTable<OfferDbRow>(sequelize, "offers", {
    supplierId: { ...column.id, primaryKey: true } as typeof column.key,
    cataloguePartId: { ...column.id, primaryKey: true } as typeof column.key,
    breaks: column.json,
    stock: column.whole,
    days: column.whole,
  });
