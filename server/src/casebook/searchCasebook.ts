import { type CasebookLine, type CasebookPage, type CasebookQuery, casebookPageSize } from "@pale-cap/contract";
import type { Scope } from "../database/scope";
import { plainWords } from "./searchWords";

/** From so alike on a word that is known is taken for one that is not. */
const alikeFrom = 0.3;
const mostAlike = 6;
const mostWords = 10;

/**
 * A page of the casebook. Each word that is looked for must stand in a job, at least as the beginning of one; a word that stands in
 * none is taken for those that are spelt nearly so, and that is told. Newest first.
 */
export async function searchCasebook(
  scope: Scope,
  query: CasebookQuery,
  pageSize = casebookPageSize,
): Promise<CasebookPage> {
  const asked = plainWords(query.search ?? "").slice(0, mostWords);
  const bind: unknown[] = [scope.realm];
  const put = (value: unknown) => `$${bind.push(value)}`;
  const conditions = ["w.realm = $1"];
  const respelt: { asked: string; taken: readonly string[] }[] = [];
  for (const word of asked) {
    const isKnown = await knows(scope, word);
    const taken = isKnown ? [word] : await wordsAlike(scope, word);
    if (!isKnown && taken.length > 0) respelt.push({ asked: word, taken });
    // One that is like none finds nothing.
    const terms = (taken.length > 0 ? taken : [word]).map((one) => `${one}:*`).join(" | ");
    conditions.push(`w.lexemes @@ to_tsquery('simple', ${put(terms)})`);
  }
  const isClosedOnly = query.symptom !== null || query.cause !== null || query.hasReturned || query.series !== null;
  if (query.deviceKind !== null) conditions.push(`j.device_kind = ${put(query.deviceKind)}`);
  if (query.model !== null) conditions.push(`c.model_key = ${put(query.model)}`);
  if (query.boardTypeId !== null) conditions.push(`c.board_type_id = ${put(query.boardTypeId)}`);
  if (query.symptom !== null) conditions.push(`${put(query.symptom)} = ANY(c.symptoms)`);
  if (query.cause !== null) conditions.push(`${put(query.cause)} = ANY(c.causes)`);
  if (query.series !== null) {
    const series = put(query.series);
    conditions.push(
      `EXISTS (SELECT 1 FROM closed_findings s WHERE s.job_id = w.job_id AND (s.series_key = ${series} OR s.fitted_series_key = ${series}))`,
    );
  }
  if (query.hasReturned) conditions.push("EXISTS (SELECT 1 FROM jobs r WHERE r.comeback_of = w.job_id)");
  const joined = `FROM job_words w JOIN jobs j ON j.id = w.job_id
    ${isClosedOnly ? "JOIN" : "LEFT JOIN"} closed_jobs c ON c.job_id = w.job_id WHERE ${conditions.join(" AND ")}`;
  const [counted] = await scope.sql<{ total: number }>(`SELECT count(*)::int AS total ${joined}`, bind);
  const ids = await scope.sql<{ id: string }>(
    `SELECT w.job_id AS id ${joined} ORDER BY w.number DESC LIMIT ${pageSize + 1} OFFSET ${put(query.offset)}`,
    bind,
  );
  const page = ids.slice(0, pageSize).map((one) => one.id);
  return {
    lines: await casebookLines(scope, page),
    total: counted?.total ?? 0,
    nextOffset: ids.length > pageSize ? query.offset + pageSize : null,
    respelt,
    isSettled: !(await scope.rows.jobSummaries.has({ isStale: true, realm: scope.realm })),
  };
}

/** Whether any job has a word that begins so. */
async function knows(scope: Scope, word: string): Promise<boolean> {
  const rows = await scope.sql<{ found: boolean }>(
    `SELECT EXISTS (SELECT 1 FROM job_words WHERE realm = $1 AND lexemes @@ to_tsquery('simple', $2)) AS found`,
    [scope.realm, `${word}:*`],
  );
  return rows[0]?.found === true;
}

async function wordsAlike(scope: Scope, word: string): Promise<readonly string[]> {
  const rows = await scope.sql<{ word: string }>(
    `SELECT word FROM known_words WHERE realm = $1 AND similarity(word, $2) >= ${alikeFrom}
     ORDER BY similarity(word, $2) DESC, word LIMIT ${mostAlike}`,
    [scope.realm, word],
  );
  return rows.map((one) => one.word);
}

/** What the casebook tells of these jobs, in the order given. */
async function casebookLines(scope: Scope, jobIds: readonly string[]): Promise<readonly CasebookLine[]> {
  if (jobIds.length === 0) return [];
  const rows = await scope.sql<Omit<CasebookLine, "closedAt"> & { readonly closedAt: Date | null }>(
    `SELECT j.id, j.number, j.device_kind AS "deviceKind", j.device_maker AS "deviceMaker", j.device_model AS "deviceModel",
       j.complaint, c.closed_at AS "closedAt", c.outcome, coalesce(c.causes, '{}') AS causes,
       j.origin IS NOT NULL AS "isForeign", c.spent_minutes AS "spentMinutes", c.parts_minor AS "partsMinor",
       coalesce((SELECT array_agg(designator ORDER BY designator) FROM closed_findings f
         WHERE f.job_id = j.id AND f.shown = 'failed'), '{}') AS failed,
       coalesce((SELECT array_agg(designator ORDER BY designator) FROM closed_findings f
         WHERE f.job_id = j.id AND f.was_replaced), '{}') AS replaced,
       back.number AS "returnedNumber", back.kind AS "returnedAs"
     FROM jobs j LEFT JOIN closed_jobs c ON c.job_id = j.id
     LEFT JOIN LATERAL (SELECT r.number, coalesce(r.comeback_kind, 'unknown') AS kind FROM jobs r
       WHERE r.comeback_of = j.id ORDER BY r.number LIMIT 1) back ON true
     WHERE j.id = ANY($1::uuid[])`,
    [[...jobIds]],
  );
  const byId = new Map(
    rows.map((row): [string, CasebookLine] => [row.id, { ...row, closedAt: row.closedAt?.toISOString() ?? null }]),
  );
  return jobIds.flatMap((id) => byId.get(id) ?? []);
}
