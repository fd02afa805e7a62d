import type { BoardValues } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface BoardRow {
  id: string;
  jobId: string;
  version: number;
  /** Among the boards of its unit, from 1. */
  place: number;
  deletedAt: Date | null;
  boardTypeRevisionId: string | null;
  name: string | null;
  widthMetres: number;
  depthMetres: number;
  barrierMetres: number | null;
  lidHeightMetres: number | null;
  outline: BoardValues["outline"];
  lidZones: BoardValues["lidZones"];
  underlay: BoardValues["underlay"];
}

export const boards = (sequelize: Sequelize) =>
  defineTable<BoardRow>(sequelize, "boards", {
    id: column.key,
    jobId: column.id,
    version: column.whole,
    place: column.whole,
    deletedAt: column.moment,
    boardTypeRevisionId: column.id,
    name: column.text,
    widthMetres: column.real,
    depthMetres: column.real,
    barrierMetres: column.real,
    lidHeightMetres: column.real,
    outline: column.json,
    lidZones: column.json,
    underlay: column.json,
  });
