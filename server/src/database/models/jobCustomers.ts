import { DataTypes, type Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Whose job it is, and what the owner said: both leave with the customer. */
export interface JobCustomerRow {
  jobId: string;
  customerId: string | null;
  ownersWords: string | null;
}

export const jobCustomers = (sequelize: Sequelize) =>
  defineTable<JobCustomerRow>(sequelize, "job_customers", {
    jobId: { type: DataTypes.UUID, primaryKey: true },
    customerId: column.id,
    ownersWords: column.text,
  });
