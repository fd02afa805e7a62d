/**
 * One order for everything that is only ever added: a sequence over the whole database. With it the clock that gave a
 * moment, the server's receipt, and whether a job was closed already; events of closing, of who did what, realms, clocks,
 * and the summary of each job that the bench reads.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql("CREATE SEQUENCE fact_sequence");
  for (const [table, moment] of factTables) {
    const received = table === "readings" ? "" : "ADD COLUMN received_at timestamptz,";
    await sql(`ALTER TABLE ${table} ${received} ADD COLUMN sequence bigint, ADD COLUMN clock_id uuid,
      ADD COLUMN clock_ahead_seconds double precision, ADD COLUMN came_after_closing boolean NOT NULL DEFAULT false`);
    await sql(`CREATE INDEX ${table}_${moment}_old ON ${table} (${moment})`);
  }
  await sql(numberOldRows());
  for (const [table, moment] of factTables) {
    await sql(`DROP INDEX ${table}_${moment}_old;
      ALTER TABLE ${table} ALTER COLUMN sequence SET DEFAULT nextval('fact_sequence'), ALTER COLUMN sequence SET NOT NULL;
      CREATE UNIQUE INDEX ${table}_sequence ON ${table} (sequence)`);
  }
  for (const statement of statements) await sql(statement);
}

/** Append-only tables and captures, with the column of a client's moment in each. */
const factTables = [
  ["readings", "measured_at"],
  ["sign_observations", "observed_at"],
  ["charge_events", "at"],
  ["power_events", "at"],
  ["rework_ticks", "at"],
  ["teardown_returns", "at"],
  ["verdict_overrules", "at"],
  ["open_point_acceptances", "accepted_at"],
  ["house_rule_changes", "changed_at"],
  ["judgement_snapshots", "taken_at"],
  ["captures", "measured_at"],
] as const;

/** By receipt, else by the client's moment, else by id: as good as can be told of rows from before the sequence. */
function numberOldRows(): string {
  const all = factTables
    .map(
      ([table, moment]) => `SELECT '${table}' AS source, id, coalesce(received_at, ${moment}) AS moment FROM ${table}`,
    )
    .join(" UNION ALL ");
  const updates = factTables.map(
    ([table]) =>
      `UPDATE ${table} t SET sequence = o.number FROM old_order o WHERE o.source = '${table}' AND o.id = t.id`,
  );
  return [
    `CREATE TEMP TABLE old_order ON COMMIT DROP AS
      SELECT source, id, row_number() OVER (ORDER BY moment, id) AS number FROM (${all}) rows`,
    "CREATE INDEX ON old_order (source, id)",
    ...updates,
    "SELECT setval('fact_sequence', greatest((SELECT count(*) FROM old_order), 1))",
  ].join(";\n");
}

const statements = [
  `ALTER TABLE rework_ticks ADD COLUMN fitted_part_id uuid, ADD COLUMN stripe_degrees double precision`,
  `ALTER TABLE captures ADD COLUMN version integer NOT NULL DEFAULT 1`,
  `ALTER TABLE board_type_attachments ADD COLUMN version integer NOT NULL DEFAULT 1`,
  `ALTER TABLE jobs ADD COLUMN realm text NOT NULL DEFAULT 'shop' CHECK (realm IN ('shop', 'practice', 'demo')),
    DROP CONSTRAINT jobs_number_key`,
  `CREATE UNIQUE INDEX jobs_realm_number ON jobs (realm, number)`,
  `CREATE TABLE clocks (
    id uuid PRIMARY KEY, ahead_seconds double precision NOT NULL, seen_at timestamptz NOT NULL)`,
  `CREATE TABLE job_closings (
    id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, sequence bigint NOT NULL DEFAULT nextval('fact_sequence'),
    is_reopened boolean NOT NULL, note text, warranty_until date, spent_minutes double precision, at timestamptz NOT NULL,
    clock_id uuid, received_at timestamptz NOT NULL, clock_ahead_seconds double precision,
    came_after_closing boolean NOT NULL DEFAULT false, person_id uuid REFERENCES people)`,
  `CREATE INDEX job_closings_job ON job_closings (job_id)`,
  `INSERT INTO job_closings (id, job_id, is_reopened, note, warranty_until, spent_minutes, at, received_at, person_id)
    SELECT gen_random_uuid(), id, false, hand_over_note, warranty_until, spent_minutes, handed_over_at, handed_over_at,
      person_id FROM jobs WHERE handed_over_at IS NOT NULL ORDER BY handed_over_at`,
  `CREATE TABLE audit_events (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(), sequence bigint NOT NULL DEFAULT nextval('fact_sequence'),
    at timestamptz NOT NULL, person_id uuid REFERENCES people, role text NOT NULL, act text NOT NULL,
    job_id uuid REFERENCES jobs, subject text, details jsonb NOT NULL DEFAULT '{}')`,
  `CREATE INDEX audit_events_job ON audit_events (job_id)`,
  `CREATE TABLE job_summaries (
    job_id uuid PRIMARY KEY REFERENCES jobs, realm text NOT NULL, number integer NOT NULL, is_closed boolean NOT NULL,
    is_stale boolean NOT NULL DEFAULT true, marked bigint NOT NULL DEFAULT 0, folded_by text,
    lens text NOT NULL DEFAULT 'intake', open_point_count integer NOT NULL DEFAULT 0,
    charge_name text NOT NULL DEFAULT 'unknown', charge_volts double precision, charge_at timestamptz,
    charge_until timestamptz, due_on date, late_fact_count integer NOT NULL DEFAULT 0,
    search_text text NOT NULL DEFAULT '')`,
  `INSERT INTO job_summaries (job_id, realm, number, is_closed, due_on)
    SELECT id, realm, number, handed_over_at IS NOT NULL, due_on FROM jobs`,
  `CREATE INDEX job_summaries_page ON job_summaries (realm, is_closed, number DESC)`,
  `CREATE INDEX job_summaries_stale ON job_summaries (number) WHERE is_stale`,
  `CREATE INDEX nets_board ON nets (board_id)`,
  `CREATE INDEX positions_board ON positions (board_id)`,
  `CREATE INDEX judgement_snapshots_job ON judgement_snapshots (job_id, sequence)`,
  `CREATE INDEX boards_board_type_revision ON boards (board_type_revision_id)`,
  `CREATE INDEX readings_target ON readings (target_id)`,
  `CREATE INDEX readings_fitted_part ON readings (fitted_part_id)`,
  `CREATE INDEX jobs_handed_over ON jobs (handed_over_at)`,
  `CREATE INDEX accepted_writes_received ON accepted_writes (received_at)`,
  `CREATE INDEX stock_items_catalogue_part ON stock_items (catalogue_part_id)`,
  `CREATE INDEX fitted_parts_catalogue_part ON fitted_parts (catalogue_part_id)`,
  `DROP TABLE net_links`,
];
