import {
  type AuditLine,
  type AuditPage,
  type AuditQuery,
  auditPageSize,
  auditQuerySchema,
  factKinds,
  routes,
} from "@pale-cap/contract";
import { auditActText } from "@pale-cap/wording";
import type { Response } from "express";
import papa from "papaparse";
import type { AppContext } from "../../appContext";
import { audit } from "../../audit/audit";
import type { Scope } from "../../database/scope";
import { callerFor, live, type Route, read } from "../../http/route";
import { parseBody } from "../../http/validate";
import { loadRuleValues } from "../../records/rules";

/** Who did what when: every accepted write with its sender, and what beside writes somebody may ask about. Both are only ever added to. */
export function auditRoutes({ database, now }: AppContext): readonly Route[] {
  const asked = ({ search, person, from, until, before, facts }: Readonly<Record<string, unknown>>) => ({
    search: typeof search === "string" && search.trim() !== "" ? search.trim() : null,
    personId: typeof person === "string" && person !== "" ? person : null,
    from: typeof from === "string" && from !== "" ? from : null,
    until: typeof until === "string" && until !== "" ? until : null,
    before: typeof before === "string" && before !== "" ? before : null,
    withFacts: Number(facts ?? 0),
  });
  return [
    read({
      path: routes.audit,
      right: "see_audit",
      schema: auditQuerySchema,
      query: asked,
      read: async (scope, { body }): Promise<AuditPage> => {
        const lines = await loadLines(scope, body, auditPageSize + 1);
        const page = lines.slice(0, auditPageSize);
        const last = page.at(-1);
        return { lines: page, nextBefore: lines.length > auditPageSize && last ? `${last.at} ${last.id}` : null };
      },
    }),
    live({
      method: "get",
      path: routes.auditCsv,
      right: "see_audit",
      live: async (request, response) => {
        const query = parseBody(auditQuerySchema, asked(request.query));
        const at = now();
        const lines = await database.write(at, callerFor(request, null, at), async (scope) => {
          await audit(scope, "exported", { subject: "audit" });
          return loadLines(scope, query, mostExported);
        });
        sendCsv(response, lines);
      },
    }),
  ];
}

const mostExported = 200_000;

function sendCsv(response: Response, lines: readonly AuditLine[]): void {
  const rows = lines.map((line) => ({
    ...{ at: line.at, who: line.name ?? "", role: line.role ?? "", bench: line.benchName ?? "" },
    ...{ did: auditActText(line.act), act: line.act, job: line.jobNumber ?? "", about: line.subject ?? "" },
    details: Object.keys(line.details).length > 0 ? JSON.stringify(line.details) : "",
  }));
  response
    .set({ "Content-Type": "text/csv; charset=utf-8", "Content-Disposition": 'attachment; filename="audit.csv"' })
    .send(papa.unparse(rows, { escapeFormulae: true, newline: "\r\n" }));
}

async function loadLines(scope: Scope, query: AuditQuery, limit: number): Promise<readonly AuditLine[]> {
  const { personId, from, until, before, withFacts } = query;
  const zone = (await loadRuleValues(scope))["shop.timeZone"];
  const bind: unknown[] = [];
  const bound = (value: unknown) => {
    bind.push(value);
    return `$${bind.length}`;
  };
  const [events, writes]: [string[], string[]] = [[], []];
  const both = (event: string, write = event) => {
    events.push(event);
    writes.push(write);
  };
  if (personId) {
    const id = bound(personId);
    both(`e.person_id = ${id}`, `w.person_id = ${id}`);
  }
  if (from) {
    const day = `(${bound(from)}::date AT TIME ZONE ${bound(zone)})`;
    both(`e.at >= ${day}`, `w.received_at >= ${day}`);
  }
  if (until) {
    const day = `((${bound(until)}::date + 1) AT TIME ZONE ${bound(zone)})`;
    both(`e.at < ${day}`, `w.received_at < ${day}`);
  }
  const [beforeAt, beforeId] = before?.split(" ") ?? [];
  if (beforeAt && beforeId) {
    const place = `(${bound(beforeAt)}::timestamptz, ${bound(beforeId)}::uuid)`;
    both(`(e.at, e.id) < ${place}`, `(w.received_at, w.id) < ${place}`);
  }
  const act = "regexp_replace(w.kind, ' [0-9a-f]{8}-.*$', '')";
  // What an act is about says more than that its write came in.
  writes.push(withFacts === 1 ? "true" : `NOT (${act} = ANY (${bound(factKinds)}))`);
  const words = query.search?.toLowerCase().split(/\s+/).slice(0, 6) ?? [];
  const likes = words.map((word) => bound(`%${word.replace(/[\\%_]/g, "\\$&")}%`));
  const matching = likes.map(
    (like) => `lower(concat_ws(' ', l.name, l.act, l.bench, l.number, l.subject, l.details)) LIKE ${like}`,
  );
  const rows = await scope.sql<{
    id: string;
    at: Date;
    personId: string | null;
    name: string | null;
    role: AuditLine["role"];
    bench: string | null;
    act: string;
    jobId: string | null;
    number: number | null;
    subject: string | null;
    details: object | null;
  }>(
    `SELECT l.id, l.at, l.person_id AS "personId", l.name, l.role, l.bench, l.act, l.job_id AS "jobId", l.number, l.subject, l.details
     FROM (
       SELECT t.*, p.name, b.name AS bench, j.number FROM (
         SELECT e.id, e.at, e.person_id, e.role, e.bench_id, e.act, e.job_id, e.subject, e.details
         FROM audit_events e WHERE ${["true", ...events].join(" AND ")}
         UNION ALL
         SELECT w.id, w.received_at, w.person_id, w.role, w.bench_id, ${act}, w.job_id, NULL, NULL
         FROM accepted_writes w WHERE ${["true", ...writes].join(" AND ")}
       ) t LEFT JOIN people p ON p.id = t.person_id LEFT JOIN benches b ON b.id = t.bench_id LEFT JOIN jobs j ON j.id = t.job_id
     ) l ${matching.length > 0 ? `WHERE ${matching.join(" AND ")}` : ""}
     ORDER BY l.at DESC, l.id DESC LIMIT ${limit}`,
    bind,
  );
  return rows.map(({ at, bench, number, details, ...row }) => ({
    ...row,
    at: at.toISOString(),
    benchName: bench,
    jobNumber: number,
    details: (details ?? {}) as AuditLine["details"],
  }));
}
