import type { JobDetail } from "@pale-cap/contract";
import type { JobRules } from "@pale-cap/core";
import type { StoredTally } from "../database/models/closedJobs";
import type { Scope } from "../database/scope";
import { type CaseRows, type CaseSurroundings, caseRows, caseWords } from "./caseRows";
import { plainWords } from "./searchWords";

/** What the casebook keeps of a job: its words, and, once it is closed, its case. */
export interface CaseEntry {
  readonly words: readonly string[];
  readonly isForeign: boolean;
  readonly rows: CaseRows | null;
}

/** What stands beside these jobs' own rows, for their cases. */
export async function loadSurroundings(
  scope: Scope,
  jobIds: readonly string[],
): Promise<ReadonlyMap<string, CaseSurroundings>> {
  const types = await scope.sql<{ jobId: string; boardTypeId: string; name: string }>(
    `SELECT DISTINCT ON (b.job_id) b.job_id AS "jobId", t.id AS "boardTypeId", t.name
     FROM boards b JOIN board_type_revisions r ON r.id = b.board_type_revision_id JOIN board_types t ON t.id = r.board_type_id
     WHERE b.job_id = ANY($1::uuid[]) AND b.deleted_at IS NULL ORDER BY b.job_id, b.place`,
    [[...jobIds]],
  );
  const quotes = await scope.sql<{ jobId: string; minutes: number | null }>(
    `SELECT q.job_id AS "jobId", (SELECT sum((line->>'quantity')::float8)::float8
         FROM jsonb_array_elements(w.words::jsonb) AS line WHERE line->>'kind' = 'labour') AS minutes
     FROM quotes q JOIN typed_words w ON w.row_id = q.id AND w.field = 'lines'
     WHERE q.job_id = ANY($1::uuid[]) ORDER BY q.sequence`,
    [[...jobIds]],
  );
  const returns = await scope.sql<{ jobId: string }>(
    `SELECT comeback_of AS "jobId" FROM jobs WHERE comeback_of = ANY($1::uuid[]) AND comeback_kind = 'same_fault'`,
    [[...jobIds]],
  );
  const renewed = await scope.sql<{ jobId: string; designator: string }>(
    `SELECT DISTINCT j.id AS "jobId", p.designator FROM jobs j JOIN boards b ON b.job_id = j.comeback_of AND b.deleted_at IS NULL
     JOIN positions p ON p.board_id = b.id AND p.deleted_at IS NULL
     JOIN fitted_parts f ON f.position_id = p.id AND f.origin = 'replacement' AND f.fitted_at IS NOT NULL AND f.removed_at IS NULL
     WHERE j.id = ANY($1::uuid[])`,
    [[...jobIds]],
  );
  const heaps = await scope.sql<{ id: string; origin: string; lot: string | null }>(
    `SELECT s.id, s.origin, s.lot FROM stock_items s WHERE s.id IN (
       SELECT f.stock_item_id FROM fitted_parts f JOIN positions p ON p.id = f.position_id JOIN boards b ON b.id = p.board_id
       WHERE b.job_id = ANY($1::uuid[]) AND f.stock_item_id IS NOT NULL)`,
    [[...jobIds]],
  );
  const jobs = await scope.rows.jobs.all({ id: [...jobIds] }, [["id", "ASC"]]);
  const byHeap = new Map(heaps.map(({ id, ...heap }) => [id, heap]));
  return new Map(
    jobIds.map((jobId) => {
      const type = types.find((one) => one.jobId === jobId);
      return [
        jobId,
        {
          boardTypeId: type?.boardTypeId ?? null,
          boardTypeName: type?.name ?? null,
          personId: jobs.find((one) => one.id === jobId)?.personId ?? null,
          quotedMinutes: quotes.filter((one) => one.jobId === jobId).at(-1)?.minutes ?? null,
          hasReturnedSame: returns.some((one) => one.jobId === jobId),
          renewed: renewed.filter((one) => one.jobId === jobId).map((one) => one.designator),
          heaps: byHeap,
        },
      ];
    }),
  );
}

/** What the casebook keeps of a job as it stands. */
export function caseEntry(detail: JobDetail, rules: JobRules, around: CaseSurroundings): CaseEntry {
  const rows = detail.job.handedOverAt === null ? null : caseRows(detail, rules, around);
  const words = new Set(plainWords(caseWords(detail, around.boardTypeName, rows?.job.causes ?? [])));
  return { words: [...words], isForeign: detail.job.origin !== null, rows };
}

/** Puts it in the place of what was kept of the job before, and moves the counts by the difference. */
export async function storeCase(scope: Scope, jobId: string, number: number, entry: CaseEntry): Promise<void> {
  const { realm } = scope;
  await scope.sql(
    `INSERT INTO job_words (job_id, realm, number, words) VALUES ($1, $2, $3, $4)
     ON CONFLICT (job_id) DO UPDATE SET words = EXCLUDED.words RETURNING job_id`,
    [jobId, realm, number, entry.words.join(" ")],
  );
  await scope.sql(
    `INSERT INTO known_words (realm, word) SELECT $1, word FROM unnest($2::text[]) AS word
     WHERE length(word) BETWEEN 3 AND 40 ON CONFLICT DO NOTHING RETURNING word`,
    [realm, [...entry.words].sort()],
  );
  const before = await scope.rows.closedJobs.locked({ jobId });
  await scope.rows.closedFindings.remove({ jobId });
  await scope.rows.closedJobs.remove({ jobId });
  if (before) await count(scope, before.tallies, before.isForeign, -1);
  if (!entry.rows) return;
  const { isForeign, rows } = entry;
  await scope.rows.closedJobs.insert({ ...rows.job, realm, isForeign });
  await scope.rows.closedFindings.insertAll(rows.findings.map((one) => ({ ...one, realm })));
  await count(scope, rows.job.tallies, isForeign, 1);
}

/** In the order of their keys: two that count at once never wait for each other in a circle. */
async function count(scope: Scope, tallies: readonly StoredTally[], isForeign: boolean, sign: 1 | -1): Promise<void> {
  if (tallies.length === 0) return;
  const columns = (["kind", "scope", "subject"] as const).map((name) => tallies.map((one) => one[name]));
  await scope.sql(
    `INSERT INTO record_tallies AS t (realm, is_foreign, kind, scope, subject, seen_count, total_count)
     SELECT $1, $2, kind, scope, subject, ($7 * count(*) FILTER (WHERE is_seen))::integer, ($7 * count(*))::integer
     FROM unnest($3::text[], $4::text[], $5::text[], $6::boolean[]) AS one(kind, scope, subject, is_seen)
     GROUP BY kind, scope, subject ORDER BY kind, scope, subject
     ON CONFLICT (realm, kind, scope, subject, is_foreign) DO UPDATE
       SET seen_count = t.seen_count + EXCLUDED.seen_count, total_count = t.total_count + EXCLUDED.total_count
     RETURNING subject`,
    [scope.realm, isForeign, ...columns, tallies.map((one) => one.isSeen), sign],
  );
}
