import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import {
  chmodSync,
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import { NeedsPerson } from "../debianPackages.mjs";
import { binFolder, majorOf } from "./binaries.mjs";
import { connected } from "./roles.mjs";

/** Who is signed in and who looks at what: of one evening, and nobody should be signed in by a restore. */
const passing = ["sessions", "presences"];

const kept = () => Math.max(1, Number(process.env.PALE_CAP_KEEP_BACKUPS) || 14);

/**
 * Takes a backup of one moment while everything goes on: the dump and the counts beside it are of the same snapshot.
 *
 * @returns the manifest, as it lies beside the dump
 */
export async function takeBackup({ cluster, backups, url, reason }, say) {
  mkdirSync(backups, { recursive: true, mode: 0o700 });
  const takenAt = new Date().toISOString();
  const name = takenAt.replace(/[:.]/g, "-");
  const dump = join(backups, `${name}.dump`);
  const manifest = await connected(url, async (client) => {
    await client.query("BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY");
    const { rows } = await client.query("SELECT pg_export_snapshot() AS id");
    const content = await contentOf(client);
    const program = join(binFolder(majorOf(cluster)), "pg_dump");
    await run(program, [
      "-Fc",
      "-Z",
      "6",
      `--snapshot=${rows[0].id}`,
      ...passing.map((table) => `--exclude-table-data=${table}`),
      "-f",
      `${dump}.part`,
      "-d",
      url,
    ]);
    return {
      format: 1,
      database: new URL(url).pathname.slice(1),
      takenAt,
      reason,
      ...content,
      sizeBytes: statSync(`${dump}.part`).size,
      sha256: await sha256Of(`${dump}.part`),
    };
  });
  chmodSync(`${dump}.part`, 0o600);
  renameSync(`${dump}.part`, dump);
  writeFileSync(join(backups, `${name}.manifest.json`), `${JSON.stringify(manifest, null, 1)}\n`, { mode: 0o600 });
  prune(backups);
  const count = Object.values(manifest.tables).reduce((sum, table) => sum + table.count, 0);
  say(`Backup taken (${reason}): ${count} rows, ${Math.ceil(manifest.sizeBytes / 1024)} kB, in ${dump}`);
  return manifest;
}

/** Rows and a sum over their contents, table by table, and where each sequence stands. */
export async function contentOf(client) {
  for (const setting of [
    "TimeZone = 'UTC'",
    "DateStyle = 'ISO, MDY'",
    "extra_float_digits = 3",
    "bytea_output = 'hex'",
  ]) {
    await client.query(`SET LOCAL ${setting}`);
  }
  const tables = {};
  const names = await client.query("SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public' ORDER BY 1");
  for (const { name } of names.rows) {
    if (passing.includes(name)) continue;
    // A sum of hashes needs no order and no memory.
    const { rows } = await client.query(
      `SELECT count(*)::int AS count, coalesce(sum(('x' || left(md5(t::text), 15))::bit(60)::bigint), 0)::text AS hash
       FROM public."${name}" t`,
    );
    tables[name] = rows[0];
  }
  const sequences = await client.query("SELECT sequencename AS name, last_value::text AS value FROM pg_sequences");
  return { tables, sequences: Object.fromEntries(sequences.rows.map(({ name, value }) => [name, value])) };
}

/** The backups of a folder, newest first. */
export function listBackups(backups) {
  if (!existsSync(backups)) return [];
  return readdirSync(backups)
    .filter((file) => file.endsWith(".manifest.json"))
    .sort()
    .reverse()
    .flatMap((file) => {
      const dump = join(backups, file.replace(/\.manifest\.json$/, ".dump"));
      try {
        return [{ dump, manifest: JSON.parse(readFileSync(join(backups, file), "utf8")) }];
      } catch {
        return [];
      }
    });
}

function prune(backups) {
  for (const { dump } of listBackups(backups).slice(kept())) {
    rmSync(dump, { force: true });
    rmSync(dump.replace(/\.dump$/, ".manifest.json"), { force: true });
  }
}

export async function sha256Of(path) {
  const hash = createHash("sha256");
  await pipeline(createReadStream(path), hash);
  return hash.digest("hex");
}

export function run(program, args) {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, { cwd: "/", stdio: ["ignore", "ignore", "pipe"] });
    let errors = "";
    child.stderr.on("data", (chunk) => {
      errors = (errors + chunk).slice(-4000);
    });
    child.once("error", reject);
    child.once("exit", (code) =>
      code === 0 ? resolve() : reject(new NeedsPerson(`${program.split("/").at(-1)} did not work:\n${errors}`)),
    );
  });
}
