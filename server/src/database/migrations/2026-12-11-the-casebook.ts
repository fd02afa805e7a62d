/**
 * The casebook: what closed jobs leave behind for those that come after them. All of it is drawn from other tables and can be made
 * anew; counts are kept beside it so that a job is judged by them without reading twenty thousand others.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql("CREATE EXTENSION IF NOT EXISTS pg_trgm");
  await sql(
    `CREATE TABLE job_words (
      job_id uuid PRIMARY KEY REFERENCES jobs, realm text NOT NULL, number integer NOT NULL, words text NOT NULL,
      lexemes tsvector GENERATED ALWAYS AS (to_tsvector('simple', words)) STORED)`,
  );
  await sql("CREATE INDEX job_words_lexemes ON job_words USING gin (lexemes)");
  await sql("CREATE INDEX job_words_newest ON job_words (realm, number DESC)");
  // What a search that is spelt another way is held against: each word once.
  await sql("CREATE TABLE known_words (realm text NOT NULL, word text NOT NULL, PRIMARY KEY (realm, word))");
  await sql("CREATE INDEX known_words_alike ON known_words USING gin (word gin_trgm_ops)");
  await sql(
    `CREATE TABLE closed_jobs (
      job_id uuid PRIMARY KEY REFERENCES jobs, realm text NOT NULL, number integer NOT NULL, is_foreign boolean NOT NULL,
      device_kind text NOT NULL, device_maker text, device_model text, model_key text, board_type_id uuid, topology text,
      age_years double precision, hours_per_day double precision, symptoms text[] NOT NULL, outcome text,
      causes text[] NOT NULL, complaint text, closed_at timestamptz NOT NULL, spent_minutes double precision,
      quoted_minutes double precision, parts_minor double precision, person_id uuid, tests jsonb NOT NULL, tallies jsonb NOT NULL)`,
  );
  await sql("CREATE INDEX closed_jobs_model ON closed_jobs (realm, model_key)");
  await sql("CREATE INDEX closed_jobs_type ON closed_jobs (realm, board_type_id) WHERE board_type_id IS NOT NULL");
  await sql("CREATE INDEX closed_jobs_newest ON closed_jobs (realm, closed_at DESC)");
  await sql(
    `CREATE TABLE closed_findings (
      job_id uuid NOT NULL REFERENCES jobs, position_id uuid NOT NULL, realm text NOT NULL, designator text NOT NULL,
      part_kind text NOT NULL, section text, maker text, series text, series_key text, capacitor_class text,
      capacitance_farads double precision, rated_volts double precision, is_warmed boolean NOT NULL, shown text NOT NULL,
      shown_by text, said_probability double precision, computed_verdict text, overruled_verdict text,
      was_replaced boolean NOT NULL, hours double precision, fitted_label text, fitted_series text, fitted_series_key text,
      fitted_origin text, fitted_lot text, fitted_catalogue_part_id uuid, PRIMARY KEY (job_id, position_id))`,
  );
  await sql("CREATE INDEX closed_findings_series ON closed_findings (realm, series_key) WHERE series_key IS NOT NULL");
  await sql(
    "CREATE INDEX closed_findings_fitted ON closed_findings (realm, fitted_series_key) WHERE fitted_series_key IS NOT NULL",
  );
  await sql(
    `CREATE TABLE record_tallies (
      realm text NOT NULL, is_foreign boolean NOT NULL, kind text NOT NULL, scope text NOT NULL, subject text NOT NULL,
      seen_count integer NOT NULL, total_count integer NOT NULL, PRIMARY KEY (realm, kind, scope, subject, is_foreign))`,
  );
  // A name that is erased goes out of what was drawn from a job's words as well, and they are drawn anew from what is left.
  await sql(
    `CREATE FUNCTION forget_drawn_words() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
     BEGIN
       IF NEW.erased_at IS NOT NULL THEN
         UPDATE job_words SET words = '' WHERE job_id IN (SELECT job_id FROM job_customers WHERE customer_id = NEW.id);
         UPDATE closed_jobs c SET complaint = j.complaint FROM jobs j
           WHERE j.id = c.job_id AND c.job_id IN (SELECT job_id FROM job_customers WHERE customer_id = NEW.id);
         DELETE FROM known_words WHERE word = ANY(regexp_split_to_array(
           lower(coalesce(OLD.name, '') || ' ' || coalesce(OLD.contact, '')), '[^[:alnum:]]+'));
         UPDATE job_summaries SET is_stale = true, marked = marked + 1
           WHERE job_id IN (SELECT job_id FROM job_customers WHERE customer_id = NEW.id);
       END IF;
       RETURN NEW;
     END $$`,
  );
  await sql(
    "CREATE TRIGGER customers_forget AFTER UPDATE OF erased_at ON customers FOR EACH ROW EXECUTE FUNCTION forget_drawn_words()",
  );
  // Every job is folded anew: those that are closed come into the casebook by it.
  await sql("UPDATE job_summaries SET is_stale = true, marked = marked + 1");
}
