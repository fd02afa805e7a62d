import type { Role } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Append-only: what a person did that somebody may ask about later. */
export interface AuditEventRow {
  id: string;
  at: Date;
  personId: string | null;
  role: Role;
  act: string;
  jobId: string | null;
  subject: string | null;
  details: unknown;
}

export const auditEvents = (sequelize: Sequelize) =>
  defineTable<AuditEventRow>(sequelize, "audit_events", {
    id: column.key,
    at: column.moment,
    personId: column.id,
    role: column.text,
    act: column.text,
    jobId: column.id,
    subject: column.text,
    details: column.json,
  });
