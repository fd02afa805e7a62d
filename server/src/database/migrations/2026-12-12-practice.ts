/**
 * Practice: which supply a practice job is about, what was done to it, what came of it, and what it was worth. Acts, events and
 * results are only ever added to; how the supply was left is kept so that a bench that was started anew has it again.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql(
    `CREATE TABLE practice_supplies (
      job_id uuid PRIMARY KEY REFERENCES jobs, supply text NOT NULL, title text NOT NULL, story text NOT NULL,
      difficulty integer NOT NULL, list_id uuid, person_id uuid REFERENCES people, bench_id uuid, begun_at timestamptz NOT NULL,
      lasting jsonb)`,
  );
  await sql("CREATE INDEX practice_supplies_person ON practice_supplies (person_id)");
  await sql(
    `CREATE TABLE practice_acts (
      id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, act jsonb, hint_level integer, told jsonb NOT NULL,
      minutes double precision NOT NULL, at timestamptz NOT NULL, person_id uuid REFERENCES people,
      sequence bigint NOT NULL DEFAULT nextval('fact_sequence'))`,
  );
  await sql("CREATE INDEX practice_acts_job ON practice_acts (job_id, sequence)");
  await sql(
    `CREATE TABLE practice_events (
      job_id uuid NOT NULL REFERENCES jobs, number integer NOT NULL, code text NOT NULL, at_name text,
      volts double precision, joules double precision, bench_seconds double precision NOT NULL,
      sequence bigint NOT NULL DEFAULT nextval('fact_sequence'), PRIMARY KEY (job_id, number))`,
  );
  await sql(
    `CREATE TABLE practice_results (
      job_id uuid PRIMARY KEY REFERENCES jobs, result jsonb NOT NULL, skills jsonb NOT NULL, total double precision NOT NULL,
      is_passed boolean NOT NULL, is_fatal boolean NOT NULL, minutes double precision NOT NULL,
      best_minutes double precision NOT NULL, ended_at timestamptz NOT NULL, person_id uuid REFERENCES people)`,
  );
  await sql(
    `CREATE TABLE practice_lists (
      id uuid PRIMARY KEY, name text NOT NULL, pass_mark double precision NOT NULL, supplies text[] NOT NULL,
      made_at timestamptz NOT NULL, person_id uuid REFERENCES people, is_removed boolean NOT NULL DEFAULT false)`,
  );
}
