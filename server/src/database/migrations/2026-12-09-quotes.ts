const factColumns = `sequence bigint NOT NULL DEFAULT nextval('fact_sequence'), clock_id uuid,
  received_at timestamptz NOT NULL, clock_ahead_seconds double precision, came_after_closing boolean NOT NULL DEFAULT false`;

/** What the customer was told a repair costs, version by version, and what the customer said to each. */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql(
    `CREATE TABLE quotes (
      id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, lines jsonb NOT NULL,
      tax_ratio double precision NOT NULL, valid_days integer NOT NULL, note text, at timestamptz NOT NULL,
      person_id uuid REFERENCES people, ${factColumns})`,
  );
  await sql("CREATE INDEX quotes_job ON quotes (job_id)");
  await sql(
    `CREATE TABLE quote_answers (
      id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, quote_id uuid NOT NULL REFERENCES quotes,
      word text NOT NULL, limit_minor bigint, by_whom text NOT NULL, way text NOT NULL, at timestamptz NOT NULL,
      person_id uuid REFERENCES people, ${factColumns})`,
  );
  await sql("CREATE INDEX quote_answers_job ON quote_answers (job_id)");
}
