import type { Scope } from "../database/scope";

/** What somebody may ask about later: who overruled, accepted, took out of the program, erased or changed a rule. */
export const auditedActs = [
  "verdict_overruled",
  "power_gate_overruled",
  "open_point_accepted",
  "exported",
  "erased",
  "rule_changed",
  "catalogue_imported",
] as const;
export type AuditedAct = (typeof auditedActs)[number];

export async function audit(
  scope: Scope,
  act: AuditedAct,
  about: { readonly jobId?: string; readonly subject?: string | null; readonly details?: object },
): Promise<void> {
  const { personId, role, now: at } = scope;
  await scope.sql(
    `INSERT INTO audit_events (at, person_id, role, act, job_id, subject, details)
     VALUES ($1, $2, $3, $4, $5, $6, $7) RETURNING sequence`,
    [at, personId, role, act, about.jobId ?? null, about.subject ?? null, JSON.stringify(about.details ?? {})],
  );
}
