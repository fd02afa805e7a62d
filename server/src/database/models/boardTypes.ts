import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface BoardTypeRow {
  id: string;
  name: string;
}

export const boardTypes = (sequelize: Sequelize) =>
  defineTable<BoardTypeRow>(sequelize, "board_types", { id: column.key, name: column.text });
