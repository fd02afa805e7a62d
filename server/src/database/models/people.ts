import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface PersonRow {
  id: string;
  name: string;
}

export const people = (sequelize: Sequelize) =>
  defineTable<PersonRow>(sequelize, "people", { id: column.key, name: column.text });
