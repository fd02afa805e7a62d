import type { ConverterDescription, NetNetwork, Section } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface NetRow {
  id: string;
  boardId: string;
  lineageId: string;
  version: number;
  deletedAt: Date | null;
  name: string;
  section: Section;
  nominalVolts: number | null;
  fullLoadAmps: number | null;
  toleranceRatio: number | null;
  rippleLimitVolts: number | null;
  network: NetNetwork | null;
  converter: ConverterDescription | null;
  leastLoadAmps: number | null;
  isCurrentOutput: boolean | null;
}

export const nets = (sequelize: Sequelize) =>
  defineTable<NetRow>(sequelize, "nets", {
    id: column.key,
    boardId: column.id,
    lineageId: column.id,
    version: column.whole,
    deletedAt: column.moment,
    name: column.text,
    section: column.text,
    nominalVolts: column.real,
    fullLoadAmps: column.real,
    toleranceRatio: column.real,
    rippleLimitVolts: column.real,
    network: column.json,
    converter: column.json,
    leastLoadAmps: column.real,
    isCurrentOutput: column.flag,
  });
