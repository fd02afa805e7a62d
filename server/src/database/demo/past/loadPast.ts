import { readFileSync } from "node:fs";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { fileURLToPath } from "node:url";
import { gunzipSync } from "node:zlib";
import { coreVersion } from "@pale-cap/core";
import pg from "pg";
import { from as copyFrom } from "pg-copy-streams";
import { firstPastNumber, pastRows } from "./pastRows";

type Row = Readonly<Record<string, unknown>>;

/** What was drawn from the past's jobs when the file was made, by table; moments of closing are the jobs' own. */
export type FoldedPast = Readonly<
  Record<"job_summaries" | "closed_jobs" | "closed_findings" | "job_words", readonly Row[]>
>;

export const foldedPastFile = fileURLToPath(new URL("./foldedPast.json.gz", import.meta.url));

/**
 * Gives the demo shop its three years of closed jobs, once: copied in, and with what is drawn from them, so that the casebook is there
 * at the first look. Two starts at once are one.
 *
 * @param ownerUrl a direct connection of the owner
 * @param isFolded false: everything is left to be drawn anew
 */
export async function loadPast(ownerUrl: string, now: Date, isFolded = true): Promise<boolean> {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  try {
    await client.query("BEGIN");
    await client.query("SELECT pg_advisory_xact_lock(727002)");
    // Every start but the first asks this and no more.
    const known = await client.query("SELECT 1 FROM jobs WHERE number = $1", [firstPastNumber]);
    if (known.rowCount !== 0) return false;
    const people = await client.query<{ id: string }>("SELECT id FROM people ORDER BY name");
    const rows = pastRows(
      now,
      people.rows.map((one) => one.id),
    );
    // A demo from before it has jobs of these numbers.
    const last = firstPastNumber + (rows.get("jobs")?.length ?? 0) - 1;
    const taken = await client.query("SELECT 1 FROM jobs WHERE number <= $1 LIMIT 1", [last]);
    if (taken.rowCount !== 0 || people.rowCount === 0) return false;
    for (const [table, list] of rows) await copy(client, table, list);
    if (isFolded) await copyFolded(client, rows.get("jobs") ?? []);
    else {
      await client.query(
        `INSERT INTO job_summaries (job_id, realm, number, is_closed, is_stale)
         SELECT id, realm, number, true, true FROM jobs ON CONFLICT DO NOTHING`,
      );
    }
    await client.query("COMMIT");
    return true;
  } catch (error) {
    await client.query("ROLLBACK");
    throw error;
  } finally {
    await client.end();
  }
}

async function copyFolded(client: pg.Client, jobs: readonly Row[]): Promise<void> {
  const folded = JSON.parse(gunzipSync(readFileSync(foldedPastFile)).toString()) as FoldedPast;
  const closedAt = new Map(jobs.map((job) => [job.id, job.handedOverAt]));
  const personId = new Map(jobs.map((job) => [job.id, job.personId]));
  await copy(
    client,
    "job_summaries",
    folded.job_summaries.map((row) => ({ ...row, isStale: false, foldedBy: coreVersion })),
  );
  await copy(
    client,
    "closed_jobs",
    folded.closed_jobs.map((row) => ({ ...row, closedAt: closedAt.get(row.jobId), personId: personId.get(row.jobId) })),
  );
  await copy(client, "closed_findings", folded.closed_findings);
  await copy(client, "job_words", folded.job_words);
  await client.query(
    `INSERT INTO known_words (realm, word)
     SELECT DISTINCT realm, word FROM job_words, regexp_split_to_table(words, ' ') AS word
     WHERE length(word) BETWEEN 3 AND 40 ON CONFLICT DO NOTHING`,
  );
  await client.query(
    `INSERT INTO record_tallies AS t (realm, is_foreign, kind, scope, subject, seen_count, total_count)
     SELECT c.realm, c.is_foreign, one.kind, one.scope, one.subject, count(*) FILTER (WHERE one."isSeen"), count(*)
     FROM closed_jobs c, jsonb_to_recordset(c.tallies) AS one(kind text, scope text, subject text, "isSeen" boolean)
     WHERE c.job_id = ANY($1::uuid[]) GROUP BY 1, 2, 3, 4, 5
     ON CONFLICT (realm, kind, scope, subject, is_foreign) DO UPDATE
       SET seen_count = t.seen_count + EXCLUDED.seen_count, total_count = t.total_count + EXCLUDED.total_count`,
    [folded.closed_jobs.map((row) => row.jobId)],
  );
}

const snake = (name: string) => name.replaceAll(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** Rows into a table; a column that none of them has is left to its default. */
async function copy(client: pg.Client, table: string, rows: readonly Row[]): Promise<void> {
  if (rows.length === 0) return;
  const names = [...new Set(rows.flatMap((row) => Object.keys(row)))];
  const arrays = await arrayColumns(client, table);
  const columns = names.map((name) => `"${snake(name)}"`).join(", ");
  const lines = rows.map((row) => `${names.map((name) => cell(row[name], arrays.has(snake(name)))).join("\t")}\n`);
  await pipeline(Readable.from(lines), client.query(copyFrom(`COPY "${table}" (${columns}) FROM STDIN`)));
}

async function arrayColumns(client: pg.Client, table: string): Promise<ReadonlySet<string>> {
  const found = await client.query<{ name: string }>(
    "SELECT column_name AS name FROM information_schema.columns WHERE table_name = $1 AND data_type = 'ARRAY'",
    [table],
  );
  return new Set(found.rows.map((one) => one.name));
}

/** One value as COPY takes it in its text form. */
function cell(value: unknown, isArray: boolean): string {
  if (value === null || value === undefined) return "\\N";
  if (value instanceof Date) return value.toISOString();
  if (typeof value === "boolean") return value ? "t" : "f";
  if (isArray) {
    const items = (value as readonly string[]).map((one) => `"${one.replaceAll(/["\\]/g, "\\$&")}"`);
    return escaped(`{${items.join(",")}}`);
  }
  return escaped(typeof value === "object" ? JSON.stringify(value) : String(value));
}

const escaped = (text: string) =>
  text.replaceAll("\\", "\\\\").replaceAll("\t", "\\t").replaceAll("\n", "\\n").replaceAll("\r", "\\r");
