import type { QueryInterface } from "sequelize";

/** What is noted at the counter beyond the complaint: as received, whether it is the supply at all, what it would cost. */
export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.query("ALTER TABLE jobs ADD COLUMN intake_details jsonb NOT NULL DEFAULT '{}'");
}
