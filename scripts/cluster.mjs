import { spawnSync } from "node:child_process";
import { readdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { NeedsPerson } from "./debianPackages.mjs";
import { checkout } from "./paths.mjs";

function cluster(action, name) {
  const result = spawnSync("bash", [join(checkout, "scripts/cluster.sh"), action, name], {
    encoding: "utf8",
    stdio: ["ignore", "pipe", "inherit"],
  });
  if (result.status !== 0) throw new NeedsPerson(`The project's PostgreSQL could not be brought to ${action}.`);
  return result.stdout.trim();
}

/** Starts a cluster and returns its address, without a database name. */
export const startCluster = (name) => cluster("start", name);
export const stopCluster = (name) => cluster("stop", name);
export const removeCluster = (name) => cluster("remove", name);

/** Clusters of test runs that were killed: their process is gone, so they may go too. */
export function sweepTestClusters() {
  const prefix = `.pg-${process.getuid()}-test-`;
  for (const entry of readdirSync(dirname(cluster("folder", "x")))) {
    const pid = entry.startsWith(prefix) ? Number(/^(\d+)$/.exec(entry.slice(prefix.length))?.[1]) : 0;
    if (pid && !isAlive(pid)) removeCluster(`test-${pid}`);
  }
}

export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === "EPERM";
  }
}

/** Creates a database on a cluster, if it is not there yet, and returns its address. */
export async function ensureDatabase(address, name) {
  const { default: pg } = await import("pg");
  const client = new pg.Client({ connectionString: `${address}postgres` });
  await client.connect();
  try {
    const found = await client.query("SELECT 1 FROM pg_database WHERE datname = $1", [name]);
    if (found.rowCount === 0) await client.query(`CREATE DATABASE "${name}"`);
  } finally {
    await client.end();
  }
  return `${address}${name}`;
}
