import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface BoardRow {
  id: string;
  jobId: string;
  version: number;
  boardTypeRevisionId: string | null;
  name: string | null;
  widthMetres: number;
  depthMetres: number;
  barrierMetres: number | null;
  lidHeightMetres: number | null;
}

export const boards = (sequelize: Sequelize) =>
  defineTable<BoardRow>(sequelize, "boards", {
    id: column.key,
    jobId: column.id,
    version: column.whole,
    boardTypeRevisionId: column.id,
    name: column.text,
    widthMetres: column.real,
    depthMetres: column.real,
    barrierMetres: column.real,
    lidHeightMetres: column.real,
  });
