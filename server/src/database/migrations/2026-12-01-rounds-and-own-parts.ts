/**
 * A plan names the part that lies there, and the round it was made in; a part that no catalogue knows says where it came from.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql("ALTER TABLE fitted_parts ADD COLUMN source text");
  // One part stands in a place, and one may lie ready for it.
  await sql("DROP INDEX fitted_parts_current");
  await sql(`CREATE UNIQUE INDEX fitted_parts_current ON fitted_parts
    (position_id, (origin = 'replacement' AND fitted_at IS NULL)) WHERE removed_at IS NULL`);
  await sql(`ALTER TABLE replacement_plans ADD COLUMN part_in_hand_id uuid REFERENCES fitted_parts,
    ADD COLUMN round integer NOT NULL DEFAULT 1`);
}
