/** Which core made the analysis of a capture: what an older one made is made anew when it is opened. */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql("ALTER TABLE captures ADD COLUMN core_version text NOT NULL DEFAULT '0.1.0'");
  await sql("ALTER TABLE captures ALTER COLUMN core_version DROP DEFAULT");
}
