import type { Fixing, PartKind, PolarityMark } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface PositionRow {
  id: string;
  boardId: string;
  lineageId: string;
  version: number;
  deletedAt: Date | null;
  designator: string;
  kind: PartKind;
  netId: string | null;
  xMetres: number | null;
  yMetres: number | null;
  outlineWidthMetres: number | null;
  outlineDepthMetres: number | null;
  outlineHeightMetres: number | null;
  markedOhms: number | null;
  pitchMetres: number | null;
  polarityMark: PolarityMark | null;
  boardNegativeDegrees: number | null;
  fixing: Fixing | null;
  heatSource: string | null;
  note: string | null;
}

export const positions = (sequelize: Sequelize) =>
  defineTable<PositionRow>(sequelize, "positions", {
    id: column.key,
    boardId: column.id,
    lineageId: column.id,
    version: column.whole,
    deletedAt: column.moment,
    designator: column.text,
    kind: column.text,
    netId: column.id,
    xMetres: column.real,
    yMetres: column.real,
    outlineWidthMetres: column.real,
    outlineDepthMetres: column.real,
    outlineHeightMetres: column.real,
    markedOhms: column.real,
    pitchMetres: column.real,
    polarityMark: column.text,
    boardNegativeDegrees: column.real,
    fixing: column.text,
    heatSource: column.text,
    note: column.text,
  });
