import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** A clock of a client, one page of one browser, and by how much it runs ahead of the server's. */
export interface ClockRow {
  id: string;
  aheadSeconds: number;
  seenAt: Date;
}

export const clocks = (sequelize: Sequelize) =>
  defineTable<ClockRow>(sequelize, "clocks", {
    id: column.key,
    aheadSeconds: column.real,
    seenAt: column.moment,
  });
