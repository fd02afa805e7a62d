import type { QueryInterface } from "sequelize";

/**
 * How a rail's capacitors hang together, a person's word against a verdict, the summary in a person's words, and what a
 * change of a house rule turned.
 */
export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.query(
    `ALTER TABLE nets ADD COLUMN network jsonb;
     ALTER TABLE positions ADD COLUMN marked_ohms double precision;
     ALTER TABLE jobs ADD COLUMN verdict_summary text;
     ALTER TABLE house_rule_changes ADD COLUMN effects jsonb NOT NULL DEFAULT '[]';
     CREATE TABLE verdict_overrules (
      id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, fitted_part_id uuid NOT NULL REFERENCES fitted_parts,
      verdict text, reason text NOT NULL, at timestamptz NOT NULL, person_id uuid REFERENCES people);
     CREATE INDEX verdict_overrules_job ON verdict_overrules (job_id)`,
  );
}
