import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Personal data stands apart from jobs, so that it can be erased without the technical record. */
export interface CustomerRow {
  id: string;
  name: string | null;
  contact: string | null;
  erasedAt: Date | null;
}

export const customers = (sequelize: Sequelize) =>
  defineTable<CustomerRow>(sequelize, "customers", {
    id: column.key,
    name: column.text,
    contact: column.text,
    erasedAt: column.moment,
  });
