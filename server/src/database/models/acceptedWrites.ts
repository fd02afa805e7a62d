import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Every write that was accepted, by its client-made id: what makes a retry harmless. */
export interface AcceptedWriteRow {
  id: string;
  kind: string;
  bodySha256: string;
  receivedAt: Date;
}

export const acceptedWrites = (sequelize: Sequelize) =>
  defineTable<AcceptedWriteRow>(sequelize, "accepted_writes", {
    id: column.key,
    kind: column.text,
    bodySha256: { ...column.text, field: "body_sha256" } as typeof column.text,
    receivedAt: column.moment,
  });
