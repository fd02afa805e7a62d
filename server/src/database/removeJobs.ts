import type pg from "pg";

/**
 * Takes jobs out with everything that hangs on them, as the owner, within the caller's transaction. Stock and people that
 * nothing names any more go too: with the demo they were invented like its jobs. The catalogue stays.
 */
export async function removeJobs(client: pg.Client, jobIds: readonly string[]): Promise<void> {
  await client.query("CREATE TEMP TABLE leaving (id uuid PRIMARY KEY) ON COMMIT DROP");
  await client.query("INSERT INTO leaving SELECT unnest($1::uuid[])", [jobIds]);
  for (const statement of statements) await client.query(statement);
}

const leavingJob = "job_id IN (SELECT id FROM leaving)";
const leavingBoard = `board_id IN (SELECT id FROM boards WHERE ${leavingJob})`;
const leavingRun = `run_id IN (SELECT id FROM proof_runs WHERE ${leavingJob})`;
const leavingPosition = `position_id IN (SELECT id FROM positions WHERE ${leavingBoard})`;

/** From what points to what is pointed at. */
const statements = [
  `DELETE FROM proof_run_samples WHERE ${leavingRun}`,
  `DELETE FROM proof_run_events WHERE ${leavingRun}`,
  ...[
    ...["typed_words", "report_files", "report_documents", "reports"],
    ...["job_words", "closed_findings", "closed_jobs"],
    ...["audit_events", "job_summaries", "job_closings", "judgement_snapshots", "open_point_acceptances"],
    ...["verdict_overrules", "captures", "readings", "sign_observations", "charge_events", "power_events"],
    ...["rework_ticks", "teardown_returns", "teardown_steps", "energy_stores", "job_acts", "photos"],
    ...["quote_answers", "quotes", "proof_runs"],
    ...["practice_acts", "practice_events", "practice_results", "practice_supplies"],
  ].map((table) => `DELETE FROM ${table} WHERE ${leavingJob}`),
  `DELETE FROM replacement_plans WHERE ${leavingPosition}`,
  // Whoever has demo jobs beside own ones comes from before there was a way to fill a drawer: what lies there is invented too.
  "DELETE FROM stock_movements",
  "UPDATE fitted_parts SET stock_item_id = NULL",
  "UPDATE replacement_plans SET stock_item_id = NULL",
  `DELETE FROM fitted_parts WHERE ${leavingPosition}`,
  `DELETE FROM positions WHERE ${leavingBoard}`,
  `DELETE FROM nets WHERE ${leavingBoard}`,
  `DELETE FROM boards WHERE ${leavingJob}`,
  `DELETE FROM job_customers WHERE ${leavingJob}`,
  "UPDATE jobs SET comeback_of = NULL WHERE comeback_of IN (SELECT id FROM leaving)",
  "DELETE FROM jobs WHERE id IN (SELECT id FROM leaving)",
  "DELETE FROM job_families f WHERE NOT EXISTS (SELECT 1 FROM jobs j WHERE j.job_family_id = f.id)",
  "DELETE FROM erasures e WHERE NOT EXISTS (SELECT 1 FROM job_customers l WHERE l.customer_id = e.customer_id)",
  "DELETE FROM customers c WHERE NOT EXISTS (SELECT 1 FROM job_customers l WHERE l.customer_id = c.id)",
  "DELETE FROM stock_items",
  `DO $$ DECLARE one uuid; BEGIN
     FOR one IN SELECT id FROM people LOOP
       BEGIN
         DELETE FROM people WHERE id = one;
       EXCEPTION WHEN foreign_key_violation THEN NULL;
       END;
     END LOOP;
   END $$`,
];
