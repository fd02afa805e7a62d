import type { SupplierValues } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface SupplierDbRow extends SupplierValues {
  id: string;
  version: number;
}

export const suppliers = (sequelize: Sequelize) =>
  defineTable<SupplierDbRow>(sequelize, "suppliers", {
    id: column.key,
    version: column.whole,
    name: column.text,
    shippingMinor: column.whole,
    freeFromMinor: column.whole,
    days: column.whole,
    isUsed: column.flag,
  });
