/** A unit has several boards, in their order; what holds charge says on which it is. */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql("ALTER TABLE boards DROP CONSTRAINT boards_job_id_key");
  await sql("ALTER TABLE boards ADD COLUMN place integer NOT NULL DEFAULT 1, ADD COLUMN deleted_at timestamptz");
  await sql("CREATE UNIQUE INDEX boards_place ON boards (job_id, place)");
  await sql("ALTER TABLE energy_stores ADD COLUMN board_id uuid REFERENCES boards");
  await sql(
    `UPDATE energy_stores s SET board_id = (SELECT b.id FROM boards b WHERE b.job_id = s.job_id ORDER BY b.place LIMIT 1)`,
  );
}
