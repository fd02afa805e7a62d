import { QueryTypes, type Sequelize } from "sequelize";

/** What is only ever added to. The application may read and insert there, the database refuses it the rest. */
export const appendOnlyTables = [
  "accepted_writes",
  "audit_events",
  "blobs",
  "blob_chunks",
  "catalogue_imports",
  "charge_events",
  "clocks",
  "house_rule_changes",
  "job_acts",
  "job_closings",
  "judgement_snapshots",
  "lot_checks",
  "open_point_acceptances",
  "power_events",
  "practice_acts",
  "practice_events",
  "practice_results",
  "proof_run_events",
  "proof_run_samples",
  "proof_runs",
  "quote_answers",
  "quotes",
  "readings",
  "report_documents",
  "report_files",
  "reports",
  "rework_ticks",
  "sign_observations",
  "stock_acts",
  "stock_movements",
  "teardown_returns",
  "typed_words",
  "verdict_overrules",
] as const;

/** Only the owner writes here. */
const ownersTables = ["migrations", "shop_identity", "erasures"];
/** What the application may have done that it may not do itself. */
const ownersFunctions = ["erase_customer(uuid)"];

/**
 * Gives the application's role what it needs: reading and inserting by default, changing only in tables that are not
 * append-only. New tables get the first by default privileges, before this runs again.
 */
export async function grantRights(sequelize: Sequelize, role: string | null): Promise<void> {
  if (role === null) return;
  const app = `"${role.replaceAll('"', '""')}"`;
  const tables = await sequelize.query<{ name: string }>(
    "SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public'",
    { type: QueryTypes.SELECT },
  );
  const statements = [
    `GRANT USAGE ON SCHEMA public TO ${app}`,
    `ALTER DEFAULT PRIVILEGES IN SCHEMA public GRANT SELECT, INSERT ON TABLES TO ${app}`,
    `ALTER DEFAULT PRIVILEGES IN SCHEMA public GRANT USAGE, SELECT ON SEQUENCES TO ${app}`,
    `GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO ${app}`,
    ...ownersFunctions.map((name) => `GRANT EXECUTE ON FUNCTION ${name} TO ${app}`),
    ...tables.flatMap(({ name }) => [
      `REVOKE ALL ON "${name}" FROM ${app}`,
      `GRANT ${privilegesOn(name)} ON "${name}" TO ${app}`,
    ]),
  ];
  await sequelize.query(statements.join(";\n"));
}

function privilegesOn(table: string): string {
  if (ownersTables.includes(table)) return "SELECT";
  return (appendOnlyTables as readonly string[]).includes(table) ? "SELECT, INSERT" : "SELECT, INSERT, UPDATE, DELETE";
}
