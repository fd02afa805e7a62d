import pg from "pg";
import { openServer } from "../server";
import { demoLines } from "../views";
import { summary, times } from "./timing";

const jobCount = 20_000;
const readingCount = 1_000_000;

/** Prints what it measures; nothing here passes or fails. */
export async function benchCasebook(say: (words: string) => void): Promise<void> {
  const server = await openServer("demo");
  const { address, databaseUrl } = server;
  const { TEST_POSTGRES_OWNER: owner } = process.env;
  const told = await fillCasebook(`${owner}${new URL(databaseUrl).pathname.slice(1)}`);
  say(`${told.jobs} closed jobs, ${told.findings} places, ${told.readings} readings:`);
  const open = (await demoLines(address)).find((one) => one.deviceModel === "Halden 24");
  for (const [name, path] of [
    ["first page", "/casebook"],
    ["by two words", "/casebook?q=halden%20fuse"],
    ["a misspelt model", "/casebook?q=vespr"],
    ["by cause", "/casebook?cause=output_capacitors_dried"],
    ["what came back", "/casebook?back=yes"],
    ["by series", "/casebook?series=midge%20hk"],
    ["a model's page", "/casebook/kind?maker=Brambix&model=Halden%2024"],
    ["all series", "/casebook/series"],
    ["one series against another", "/casebook/series/one?series=midge%20hk&against=heron"],
    ["what it changes", "/casebook/changes"],
    ["how well we judge", "/casebook/quality"],
    ["a job with what the record says to it", `/jobs/${open?.id}`],
  ] as const) {
    const taken = await times(12, async () => {
      const answer = await fetch(`${address}/api${path}`);
      if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
      await answer.arrayBuffer();
    });
    say(`  ${name}: ${summary(taken)}`);
  }
  await server.close();
}

/** The demo's past again and again under other ids, with readings that no question may have to look through. */
async function fillCasebook(ownerUrl: string): Promise<{ jobs: number; findings: number; readings: number }> {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  try {
    const past = await client.query<{ n: number }>("SELECT count(*)::int AS n FROM closed_jobs");
    const copies = Math.ceil(jobCount / (past.rows[0]?.n ?? 1)) - 1;
    const own = "SELECT job_id FROM closed_jobs";
    await client.query(`CREATE TEMP TABLE past AS SELECT * FROM jobs WHERE id IN (${own})`);
    await client.query("CREATE TEMP TABLE again AS SELECT generate_series(1, $1::int) AS k", [copies]);
    const fresh = (id: string) => `md5(${id}::text || k)::uuid`;
    const again = async (table: string, changed: Readonly<Record<string, string>>, from = table) => {
      const { rows } = await client.query<{ name: string }>(
        `SELECT column_name AS name FROM information_schema.columns
         WHERE table_name = $1 AND table_schema = 'public' AND is_generated = 'NEVER' ORDER BY ordinal_position`,
        [table],
      );
      const names = rows.map((row) => `"${row.name}"`);
      const values = rows.map((row) => changed[row.name] ?? `o."${row.name}"`);
      await client.query(
        `INSERT INTO ${table} (${names.join(", ")}) SELECT ${values.join(", ")} FROM ${from} o, again`,
      );
    };
    const number = "o.number + 1000 * k";
    const jobId = fresh("o.job_id");
    await again("jobs", { id: fresh("o.id"), number, comeback_of: "NULL" }, "past");
    const names = ["closed_findings", "closed_jobs", "job_words"];
    for (const table of names) await client.query(`CREATE TEMP TABLE own_${table} AS SELECT * FROM ${table}`);
    await again("closed_jobs", { job_id: jobId, number }, "own_closed_jobs");
    await again("closed_findings", { job_id: jobId, position_id: fresh("o.position_id") }, "own_closed_findings");
    await again(
      "job_words",
      { job_id: jobId, number },
      `(SELECT * FROM own_job_words WHERE job_id IN (SELECT id FROM past))`,
    );
    await client.query(
      `INSERT INTO job_summaries (job_id, realm, number, is_closed, is_stale)
       SELECT id, realm, number, true, false FROM jobs ON CONFLICT DO NOTHING`,
    );
    await client.query(
      `INSERT INTO readings (id, job_id, target_kind, target_id, quantity, value, is_powered, rig, is_withdrawn, measured_at, received_at)
       SELECT gen_random_uuid(), j.id, 'unit', j.id, 'input_power', 4.1, true, '{}', false, now(), now()
       FROM (SELECT id, row_number() OVER () AS n FROM jobs) j, generate_series(1, $1::int)`,
      [Math.ceil(readingCount / jobCount)],
    );
    await client.query("ANALYZE");
    const counted = await client.query<{ jobs: number; findings: number; readings: number }>(
      `SELECT (SELECT count(*)::int FROM closed_jobs) AS jobs, (SELECT count(*)::int FROM closed_findings) AS findings,
         (SELECT count(*)::int FROM readings) AS readings`,
    );
    return counted.rows[0] as { jobs: number; findings: number; readings: number };
  } finally {
    await client.end();
  }
}
