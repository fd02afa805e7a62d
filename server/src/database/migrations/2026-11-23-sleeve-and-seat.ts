import type { QueryInterface } from "sequelize";

/** More of what a sleeve says, and how a part sits: tolerance, series, fixing, what warms it. */
export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.query(
    `ALTER TABLE fitted_parts ADD COLUMN tolerance_ratio double precision, ADD COLUMN series text;
     ALTER TABLE positions ADD COLUMN fixing text, ADD COLUMN heat_source text`,
  );
}
