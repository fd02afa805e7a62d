/** More limits of a place can be set by hand, each with its reason; so can a part be taken that breaks one. */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  await sql(
    `ALTER TABLE replacement_plans
       ADD COLUMN capacitance_min_farads double precision, ADD COLUMN capacitance_max_farads double precision,
       ADD COLUMN least_rated_volts double precision, ADD COLUMN esr_min_ohms double precision,
       ADD COLUMN reasons jsonb NOT NULL DEFAULT '{}'`,
  );
}
