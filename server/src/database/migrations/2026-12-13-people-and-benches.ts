/**
 * Accounts, sessions and one-time links; who sent each write, from which bench; at which bench a job lies and who looks at it; up to
 * which place in the order something of a job was changed that is not only added to.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql(
    `CREATE TABLE accounts (
      id uuid PRIMARY KEY, version integer NOT NULL DEFAULT 1, person_id uuid NOT NULL UNIQUE REFERENCES people,
      login text NOT NULL, role text NOT NULL CHECK (role IN ('lead', 'technician', 'trainee', 'counter')),
      password_hash text, pin_hash text, is_active boolean NOT NULL DEFAULT true, made_at timestamptz NOT NULL,
      wrong_passwords integer NOT NULL DEFAULT 0, password_locked_until timestamptz,
      wrong_pins integer NOT NULL DEFAULT 0, pin_locked_until timestamptz)`,
  );
  await sql("CREATE UNIQUE INDEX accounts_login ON accounts (lower(login))");
  // As the session store of the server wants it.
  await sql("CREATE TABLE sessions (sid varchar PRIMARY KEY, sess json NOT NULL, expire timestamp(6) NOT NULL)");
  await sql("CREATE INDEX sessions_expire ON sessions (expire)");
  await sql(
    `CREATE TABLE one_time_links (
      token_sha256 text PRIMARY KEY, purpose text NOT NULL CHECK (purpose IN ('first_lead', 'set_password')),
      account_id uuid REFERENCES accounts, made_at timestamptz NOT NULL, expires_at timestamptz NOT NULL, used_at timestamptz)`,
  );
  await sql("CREATE TABLE server_keys (name text PRIMARY KEY, value text NOT NULL)");
  await sql(
    `ALTER TABLE accepted_writes ADD COLUMN person_id uuid, ADD COLUMN role text, ADD COLUMN bench_id uuid,
      ADD COLUMN job_id uuid`,
  );
  // Read page by page: the older index knew only the moment.
  await sql("DROP INDEX accepted_writes_received");
  await sql("CREATE INDEX accepted_writes_at ON accepted_writes (received_at, id)");
  await sql("ALTER TABLE audit_events ADD COLUMN bench_id uuid");
  await sql("CREATE INDEX audit_events_at ON audit_events (at, id)");
  await sql("ALTER TABLE jobs ADD COLUMN changed_sequence bigint NOT NULL DEFAULT 0");
  await sql(
    `CREATE TABLE bench_jobs (
      job_id uuid PRIMARY KEY REFERENCES jobs, bench_id uuid NOT NULL REFERENCES benches, since timestamptz NOT NULL)`,
  );
  await sql("CREATE INDEX bench_jobs_bench ON bench_jobs (bench_id)");
  await sql(
    `CREATE TABLE presences (
      id uuid PRIMARY KEY, job_id uuid NOT NULL, person_id uuid NOT NULL, bench_id uuid, seen_at timestamptz NOT NULL)`,
  );
  await sql("CREATE INDEX presences_job ON presences (job_id)");
}
