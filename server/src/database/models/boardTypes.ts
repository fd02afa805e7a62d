import type { BenchNotes } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface BoardTypeRow {
  id: string;
  name: string;
  version: number;
  benchNotes: BenchNotes | null;
}

export const boardTypes = (sequelize: Sequelize) =>
  defineTable<BoardTypeRow>(sequelize, "board_types", {
    id: column.key,
    name: column.text,
    version: column.whole,
    benchNotes: column.json,
  });
