import type { BoardTypeContent } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** A revision never changes: boards remember which one they were copied from. */
export interface BoardTypeRevisionRow {
  id: string;
  boardTypeId: string;
  number: number;
  content: BoardTypeContent;
  createdAt: Date;
}

export const boardTypeRevisions = (sequelize: Sequelize) =>
  defineTable<BoardTypeRevisionRow>(sequelize, "board_type_revisions", {
    id: column.key,
    boardTypeId: column.id,
    number: column.whole,
    content: column.json,
    createdAt: column.moment,
  });
