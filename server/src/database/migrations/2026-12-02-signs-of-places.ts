/** What was seen may belong to a place without a found part (a transistor, a fuse), and a place has a note. */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql("ALTER TABLE sign_observations ALTER COLUMN fitted_part_id DROP NOT NULL");
  await sql(`ALTER TABLE sign_observations ADD COLUMN position_id uuid REFERENCES positions,
    ADD CONSTRAINT sign_observations_subject CHECK ((fitted_part_id IS NULL) <> (position_id IS NULL))`);
  await sql("ALTER TABLE positions ADD COLUMN note text");
}
