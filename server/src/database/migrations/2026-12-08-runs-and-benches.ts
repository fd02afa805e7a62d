/**
 * Runs that the instruments drive, benches with instruments of their own, and leases by which one process of the server speaks to
 * an instrument or drives a run.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql(
    `ALTER TABLE benches ADD COLUMN version integer NOT NULL DEFAULT 1, ADD COLUMN simulated_set integer UNIQUE,
      ADD COLUMN practice_job_id uuid UNIQUE REFERENCES jobs`,
  );
  await sql(
    `INSERT INTO benches (id, name, simulated_set)
     SELECT '019a0000-0000-7000-8000-00000000be00', 'Bench 1', 0 WHERE NOT EXISTS (SELECT 1 FROM benches)`,
  );
  await sql(
    `UPDATE benches b SET simulated_set = n.place - 1
     FROM (SELECT id, row_number() OVER (ORDER BY id) AS place FROM benches) n WHERE n.id = b.id`,
  );
  await sql("ALTER TABLE benches ALTER COLUMN simulated_set SET NOT NULL");
  await sql(
    `ALTER TABLE instruments ADD COLUMN bench_id uuid REFERENCES benches,
      ADD COLUMN channel integer NOT NULL DEFAULT 1`,
  );
  await sql("UPDATE instruments SET bench_id = (SELECT id FROM benches WHERE simulated_set = 0)");
  await sql("ALTER TABLE instruments ALTER COLUMN bench_id SET NOT NULL");
  await sql(
    `INSERT INTO instruments (id, name, kind, driver, transport, bench_id, channel)
     SELECT '019a0000-0000-7000-8000-0000000be007', 'Electronic load 2', 'load', 'bench_lines', 'simulated', bench_id, 2
     FROM instruments WHERE id = '019a0000-0000-7000-8000-0000000be004' AND NOT is_removed`,
  );
  await sql(`CREATE TABLE leases (subject_id uuid PRIMARY KEY, holder uuid NOT NULL, until timestamptz NOT NULL)`);
  await sql(
    `CREATE TABLE proof_runs (
      id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, plan jsonb NOT NULL,
      is_attended_only boolean NOT NULL, is_simulated boolean NOT NULL, rig jsonb NOT NULL,
      person_id uuid REFERENCES people, begun_at timestamptz NOT NULL,
      sequence bigint NOT NULL DEFAULT nextval('fact_sequence'))`,
  );
  await sql("CREATE INDEX proof_runs_job ON proof_runs (job_id)");
  await sql(
    `CREATE TABLE proof_run_events (
      id uuid PRIMARY KEY, run_id uuid NOT NULL REFERENCES proof_runs, kind text NOT NULL,
      seconds double precision NOT NULL, step integer, stop jsonb, person_id uuid REFERENCES people,
      at timestamptz NOT NULL, sequence bigint NOT NULL DEFAULT nextval('fact_sequence'))`,
  );
  await sql("CREATE INDEX proof_run_events_run ON proof_run_events (run_id, sequence)");
  await sql("CREATE UNIQUE INDEX proof_run_events_ended ON proof_run_events (run_id) WHERE kind = 'ended'");
  await sql(
    `CREATE TABLE proof_run_samples (
      run_id uuid NOT NULL REFERENCES proof_runs, number integer NOT NULL, sample jsonb NOT NULL,
      stored_at timestamptz NOT NULL DEFAULT clock_timestamp(), PRIMARY KEY (run_id, number))`,
  );
}
