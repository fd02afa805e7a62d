import { type BenchPage, type BenchQuery, benchPageSize, benchQuerySchema, routes } from "@pale-cap/contract";
import type { Scope } from "../../database/scope";
import { type Route, read } from "../../http/route";
import { readLines } from "../../summaries/foldSummaries";

/** What is on the benches: a page of summaries, open jobs or closed ones, by words if wanted. */
export const benchRoutes = (): readonly Route[] => [
  read({
    path: routes.bench,
    right: "read",
    schema: benchQuerySchema,
    query: ({ state = "open", search, below }) => ({
      state,
      search: typeof search === "string" && search.trim() !== "" ? search : null,
      below: typeof below === "string" && below !== "" ? Number(below) : null,
    }),
    read: (scope, { body }) => benchPage(scope, body),
  }),
];

async function benchPage(scope: Scope, { state, search, below }: BenchQuery): Promise<BenchPage> {
  // Practice is a list of its own, with its closed jobs.
  const isPractice = state === "practice";
  const bind: unknown[] = isPractice ? ["practice"] : [scope.realm, state === "closed"];
  const conditions = isPractice ? ["s.realm = $1"] : ["s.realm = $1", "s.is_closed = $2"];
  const words = search?.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8) ?? [];
  for (const word of words) {
    bind.push(`%${word.replace(/[\\%_]/g, "\\$&")}%`);
    conditions.push(`s.search_text LIKE $${bind.length}`);
  }
  const [counted] = await scope.sql<{ total: number }>(
    `SELECT count(*) AS total FROM job_summaries s WHERE ${conditions.join(" AND ")}`,
    bind,
  );
  if (below !== null) {
    bind.push(below);
    conditions.push(`s.number < $${bind.length}`);
  }
  const lines = await readLines(
    scope,
    `WHERE ${conditions.join(" AND ")} ORDER BY s.number DESC LIMIT ${benchPageSize + 1}`,
    bind,
  );
  const page = lines.slice(0, benchPageSize);
  const isFirst = state === "open" && search === null && below === null;
  return {
    lines: page,
    late: isFirst ? await lateLines(scope) : [],
    total: counted?.total ?? 0,
    isSettled: !(await scope.rows.jobSummaries.has({ isStale: true, realm: scope.realm })),
    nextBelow: lines.length > benchPageSize ? (page.at(-1)?.number ?? null) : null,
  };
}

/** Closed jobs to which something came afterwards: somebody has to look. */
function lateLines(scope: Scope) {
  const where = "WHERE s.realm = $1 AND s.is_closed AND s.late_fact_count > 0 ORDER BY s.number DESC LIMIT 100";
  return readLines(scope, where, [scope.realm]);
}
