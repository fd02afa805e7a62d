import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface BenchRow {
  id: string;
  version: number;
  name: string;
  simulatedSet: number;
  practiceJobId: string | null;
}

export const benches = (sequelize: Sequelize) =>
  defineTable<BenchRow>(sequelize, "benches", {
    id: column.key,
    version: column.whole,
    name: column.text,
    simulatedSet: column.whole,
    practiceJobId: column.id,
  });
