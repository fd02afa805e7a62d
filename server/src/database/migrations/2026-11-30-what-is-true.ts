import { knownDemoJobIds } from "../demo/knownDemoJobs";

const demoIds = `'{${[...knownDemoJobIds].join(",")}}'`;

/**
 * What a reading of charge stood under (the drain, the side of the fuse), tests before power by their numbers, and acts:
 * what was done or decided on a job once. Which jobs simulated instruments may read, and what they read.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql(
    `ALTER TABLE charge_events ADD COLUMN is_drain_on boolean NOT NULL DEFAULT false, ADD COLUMN line_side text`,
  );
  await sql(`ALTER TABLE power_events ADD COLUMN item text, ADD COLUMN subject_id uuid,
    ADD COLUMN check_values jsonb NOT NULL DEFAULT '[]', ADD COLUMN reason text, ADD COLUMN rig jsonb, ADD COLUMN sign text`);
  await sql("ALTER TABLE fitted_parts ADD COLUMN is_non_polar boolean NOT NULL DEFAULT false");
  await sql("ALTER TABLE jobs ADD COLUMN takes_simulated boolean NOT NULL DEFAULT false");
  await sql(`UPDATE jobs SET takes_simulated = true WHERE realm = 'demo' AND id = ANY(${demoIds}::uuid[])`);
  for (const table of ["readings", "captures", "charge_events"]) {
    await sql(`ALTER TABLE ${table} ADD COLUMN is_simulated boolean NOT NULL DEFAULT false`);
  }
  // What was read by simulated instruments so far is known by their names; of charge nobody noted who read it.
  for (const table of ["readings", "captures"]) {
    await sql(`UPDATE ${table} SET is_simulated = true
      WHERE instrument IN (SELECT name FROM instruments WHERE transport = 'simulated')`);
  }
  await sql(`CREATE TABLE job_acts (
    id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, sequence bigint NOT NULL DEFAULT nextval('fact_sequence'),
    kind text NOT NULL, subject_id uuid, word text, note text, at timestamptz NOT NULL, clock_id uuid,
    received_at timestamptz NOT NULL, clock_ahead_seconds double precision,
    came_after_closing boolean NOT NULL DEFAULT false, person_id uuid REFERENCES people)`);
  await sql("CREATE UNIQUE INDEX job_acts_sequence ON job_acts (sequence)");
  await sql("CREATE INDEX job_acts_job ON job_acts (job_id)");
}
