/**
 * What leaves the shop: reports as they were handed over, comebacks, where a job came from, and the one way by which a customer's
 * name goes again.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql("ALTER TABLE instruments ADD COLUMN checked_on date");
  await sql(
    `ALTER TABLE jobs ADD COLUMN comeback_of uuid REFERENCES jobs, ADD COLUMN comeback_kind text,
      ADD COLUMN origin jsonb`,
  );
  await sql("CREATE INDEX jobs_comeback ON jobs (comeback_of) WHERE comeback_of IS NOT NULL");
  await sql("CREATE INDEX jobs_serial ON jobs (lower(device_serial)) WHERE device_serial IS NOT NULL");
  await sql(
    `CREATE TABLE reports (
      id uuid PRIMARY KEY, job_id uuid NOT NULL REFERENCES jobs, closing_id uuid NOT NULL UNIQUE REFERENCES job_closings,
      number integer NOT NULL, core_version text NOT NULL, made_at timestamptz NOT NULL,
      sequence bigint NOT NULL DEFAULT nextval('fact_sequence'), UNIQUE (job_id, number))`,
  );
  // Apart from the report itself: words and bytes can hold a name, and go with it.
  await sql(
    `CREATE TABLE report_documents (
      report_id uuid NOT NULL REFERENCES reports, job_id uuid NOT NULL REFERENCES jobs, audience text NOT NULL,
      document jsonb NOT NULL, PRIMARY KEY (report_id, audience))`,
  );
  await sql(
    `CREATE TABLE report_files (
      report_id uuid NOT NULL REFERENCES reports, job_id uuid NOT NULL REFERENCES jobs, audience text NOT NULL,
      pdf bytea NOT NULL, PRIMARY KEY (report_id, audience))`,
  );
  await sql(
    `CREATE TABLE erasures (
      customer_id uuid PRIMARY KEY REFERENCES customers, at timestamptz NOT NULL,
      sequence bigint NOT NULL DEFAULT nextval('fact_sequence'))`,
  );
  await moveTyped(sql);
  for (const statement of erasing) await sql(statement);
}

/** What was typed into rows that are only ever added to, by table and column; the second list holds documents. */
const apart = [
  ["job_acts", "note", "note"],
  ["job_closings", "note", "note"],
  ["open_point_acceptances", "reason", "reason"],
  ["verdict_overrules", "reason", "reason"],
  ["power_events", "note", "note"],
  ["power_events", "reason", "reason"],
  ["quotes", "note", "note"],
  ["quotes", "lines", "lines"],
  ["quote_answers", "by_whom", "byWhom"],
] as const;

/** It stands apart from now on, so that a name goes out of it without changing the row. */
async function moveTyped(sql: (text: string) => Promise<void>): Promise<void> {
  await sql(
    `CREATE TABLE typed_words (
      row_id uuid NOT NULL, field text NOT NULL, job_id uuid NOT NULL REFERENCES jobs, words text NOT NULL,
      PRIMARY KEY (row_id, field))`,
  );
  await sql("CREATE INDEX typed_words_job ON typed_words (job_id)");
  for (const [table, column, field] of apart) {
    await sql(
      `INSERT INTO typed_words (row_id, field, job_id, words)
       SELECT id, '${field}', job_id, ${column}::text FROM ${table} WHERE ${column} IS NOT NULL`,
    );
    await sql(`ALTER TABLE ${table} DROP COLUMN ${column}`);
  }
  // Who did what to which row is audited; why stands with the row.
  await sql("UPDATE audit_events SET details = details - 'reason' WHERE job_id IS NOT NULL");
}

/** Columns of sentences that a person typed, of rows that can be edited and carry their job. */
const typed = [
  ["jobs", "complaint", "id"],
  ["jobs", "symptom_note", "id"],
  ["jobs", "hand_over_note", "id"],
  ["jobs", "verdict_summary", "id"],
  ["photos", "caption", "job_id"],
  // What was typed as a number: no place for a name, and looked through all the same.
  ["readings", "raw_text", "job_id"],
  ["teardown_steps", "place", "job_id"],
  ["captures", "name", "job_id"],
  ["energy_stores", "name", "job_id"],
  ["boards", "name", "job_id"],
  ["job_summaries", "search_text", "job_id"],
] as const;

/** Columns of documents, of which only what is prose is touched: a code that looks like a name stays. */
const documents = [
  ["jobs", "intake_details", "id"],
  ["photos", "marks", "job_id"],
  ["report_documents", "document", "job_id"],
] as const;

const erasing = [
  `CREATE FUNCTION words_without(value jsonb, pattern text, is_prose boolean) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
     SELECT CASE jsonb_typeof(value)
       WHEN 'string' THEN CASE WHEN is_prose THEN to_jsonb(regexp_replace(value #>> '{}', pattern, '[erased]', 'gi')) ELSE value END
       WHEN 'array' THEN coalesce((SELECT jsonb_agg(words_without(one, pattern, is_prose) ORDER BY place)
         FROM jsonb_array_elements(value) WITH ORDINALITY AS list(one, place)), '[]'::jsonb)
       WHEN 'object' THEN coalesce((SELECT jsonb_object_agg(key, words_without(one, pattern, is_prose OR key IN (
         'words', 'text', 'note', 'caption', 'lights', 'sound', 'plugNote', 'items', 'rows', 'heads', 'title', 'device', 'notices',
         'foot', 'dates', 'name', 'reason', 'complaint', 'symptomNote', 'handOverNote', 'verdictSummary', 'ownersWords',
         'rawText', 'place', 'otherPart', 'reasons', 'byWhom')))
         FROM jsonb_each(value) AS pairs(key, one)), '{}'::jsonb)
       ELSE value END $$`,
  `CREATE FUNCTION literal_pattern(words text) RETURNS text LANGUAGE sql IMMUTABLE AS $$
     SELECT regexp_replace(trim(words), '([^[:alnum:][:space:]])', '\\\\\\1', 'g') $$`,
  /**
   * The name as it was typed, and each of its words and of the contact's that is long enough to be meant: nothing within a longer
   * word.
   */
  `CREATE FUNCTION name_pattern(name text, contact text) RETURNS text LANGUAGE sql IMMUTABLE AS $$
     SELECT string_agg('(?<![[:alnum:]])' || literal_pattern(one) || '(?![[:alnum:]])', '|'
       ORDER BY length(one) DESC, one)
     FROM (
       SELECT trim(whole) AS one FROM unnest(ARRAY[name, contact]) AS whole WHERE length(trim(whole)) >= 2
       UNION SELECT word FROM regexp_split_to_table(coalesce(name, ''), '[[:space:],;]+') AS word WHERE length(word) >= 4
       UNION SELECT (regexp_match(name, '([^[:space:]]{2,})[[:space:]]*$'))[1] WHERE name IS NOT NULL
       UNION SELECT word FROM regexp_split_to_table(coalesce(contact, ''), '[[:space:],;]+') AS word WHERE length(word) >= 5
     ) AS words WHERE one IS NOT NULL $$`,
  `CREATE FUNCTION erase_customer(whom uuid) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
   DECLARE
     pattern text;
     own uuid[];
     spoken record;
   BEGIN
     SELECT name_pattern(name, contact) INTO pattern FROM customers WHERE id = whom FOR UPDATE;
     SELECT coalesce(array_agg(job_id), '{}') INTO own FROM job_customers WHERE customer_id = whom;
     -- Whole sentences of theirs, and names of whoever answered for them, as they stand in reports.
     FOR spoken IN
       SELECT job_id, literal_pattern(words) AS words FROM (
         SELECT job_id, owners_words AS words FROM job_customers WHERE job_id = ANY(own)
         UNION SELECT job_id, words FROM typed_words WHERE job_id = ANY(own) AND field = 'byWhom'
       ) AS said WHERE trim(words) <> '' AND words <> '[erased]'
     LOOP
       UPDATE report_documents SET document = words_without(document, spoken.words, false) WHERE job_id = spoken.job_id;
     END LOOP;
     UPDATE job_customers SET owners_words = NULL WHERE customer_id = whom;
     UPDATE typed_words SET words = '[erased]' WHERE job_id = ANY(own) AND field = 'byWhom';
     IF pattern IS NOT NULL THEN
       UPDATE typed_words SET words = regexp_replace(words, pattern, '[erased]', 'gi')
         WHERE job_id = ANY(own) AND field <> 'lines' AND words ~* pattern;
       UPDATE typed_words SET words = words_without(words::jsonb, pattern, false)::text
         WHERE job_id = ANY(own) AND field = 'lines' AND words ~* pattern;
       ${typed.map(([table, column, key]) => `UPDATE ${table} SET ${column} = regexp_replace(${column}, pattern, '[erased]', 'gi') WHERE ${key} = ANY(own) AND ${column} ~* pattern;`).join("\n       ")}
       ${documents.map(([table, column, key]) => `UPDATE ${table} SET ${column} = words_without(${column}, pattern, false) WHERE ${key} = ANY(own) AND ${column}::text ~* pattern;`).join("\n       ")}
       UPDATE positions p SET note = regexp_replace(note, pattern, '[erased]', 'gi')
         FROM boards b WHERE b.id = p.board_id AND b.job_id = ANY(own) AND p.note ~* pattern;
       UPDATE replacement_plans r SET reasons = words_without(reasons, pattern, true),
           other_part = regexp_replace(other_part, pattern, '[erased]', 'gi')
         FROM positions p, boards b WHERE p.id = r.position_id AND b.id = p.board_id AND b.job_id = ANY(own)
           AND (r.reasons::text ~* pattern OR r.other_part ~* pattern);
       UPDATE job_families f SET name = regexp_replace(name, pattern, '[erased]', 'gi')
         FROM jobs j WHERE j.job_family_id = f.id AND j.id = ANY(own) AND f.name ~* pattern;
     END IF;
     -- Made anew from what is left of their words, when somebody asks for them.
     DELETE FROM report_files WHERE job_id = ANY(own);
     UPDATE customers SET name = NULL, contact = NULL, erased_at = coalesce(erased_at, now()) WHERE id = whom;
     INSERT INTO erasures (customer_id, at) VALUES (whom, now()) ON CONFLICT DO NOTHING;
   END $$`,
  "REVOKE ALL ON FUNCTION erase_customer(uuid) FROM PUBLIC",
] as const;
