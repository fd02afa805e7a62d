import type { Scope } from "../database/scope";

/** What somebody may ask about later beside the writes themselves, or with more than their kind. */
export const auditedActs = [
  "verdict_overruled",
  "power_gate_overruled",
  "open_point_accepted",
  "exported",
  "erased",
  "rule_changed",
  "catalogue_imported",
  "signed_in",
  "signed_out",
  "sign_in_refused",
  "bench_taken_over",
  "bench_left",
  "password_changed",
  "pin_changed",
  "link_made",
  "link_used",
  "account_made",
  "account_changed",
  "signed_out_by_lead",
] as const;
export type AuditedAct = (typeof auditedActs)[number];

export async function audit(
  scope: Scope,
  act: AuditedAct,
  about: { readonly jobId?: string; readonly subject?: string | null; readonly details?: object },
): Promise<void> {
  const { personId, role, benchId, now: at } = scope;
  await scope.sql(
    `INSERT INTO audit_events (at, person_id, role, bench_id, act, job_id, subject, details)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8) RETURNING sequence`,
    [at, personId, role, benchId, act, about.jobId ?? null, about.subject ?? null, JSON.stringify(about.details ?? {})],
  );
}
