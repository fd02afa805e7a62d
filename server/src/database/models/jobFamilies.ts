import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Identical units that were taken in together. */
export interface JobFamilyRow {
  id: string;
  name: string;
  createdAt: Date;
}

export const jobFamilies = (sequelize: Sequelize) =>
  defineTable<JobFamilyRow>(sequelize, "job_families", {
    id: column.key,
    name: column.text,
    createdAt: column.moment,
  });
