/**
 * What is done on a board beside ticks: acts carry a value, numbers and a photo; a place that holds no electrolytic says in words
 * what goes in; a rail says how it may be loaded.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql(
    `ALTER TABLE job_acts ADD COLUMN value double precision, ADD COLUMN numbers jsonb,
      ADD COLUMN photo_id uuid REFERENCES photos`,
  );
  await sql("ALTER TABLE nets ADD COLUMN least_load_amps double precision, ADD COLUMN is_current_output boolean");
  await sql("ALTER TABLE replacement_plans ADD COLUMN other_part text");
}
