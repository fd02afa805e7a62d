import type { QueryInterface } from "sequelize";

/** What is known of a rail's converter, and captures of its ripple. */
export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.query(
    `ALTER TABLE nets ADD COLUMN converter jsonb;
     CREATE TABLE captures (
      id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, net_id uuid NOT NULL REFERENCES nets, name text NOT NULL,
      load_amps double precision, rig jsonb NOT NULL, analysis jsonb NOT NULL, instrument text,
      samples_sha256 text NOT NULL REFERENCES blobs, is_removed boolean NOT NULL DEFAULT false,
      measured_at timestamptz NOT NULL, person_id uuid REFERENCES people);
     CREATE INDEX captures_job ON captures (job_id)`,
  );
}
