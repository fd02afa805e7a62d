/** Other parts come from files too: kind, maker and type tell each from every other. */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql(
    "CREATE UNIQUE INDEX catalogue_components_key ON catalogue_components (kind, lower(maker), lower(type_number))",
  );
}
