/** Whether a database is a shop's own or the demo: settled once, when it is opened for the first time; never both. */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql(`CREATE TABLE shop_identity (
    is_only boolean PRIMARY KEY DEFAULT true CHECK (is_only), realm text NOT NULL CHECK (realm IN ('shop', 'demo')),
    settled_at timestamptz NOT NULL)`);
  await sql("ALTER TABLE jobs ALTER COLUMN realm DROP DEFAULT");
}
