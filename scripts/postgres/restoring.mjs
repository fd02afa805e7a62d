import { existsSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { isDeepStrictEqual } from "node:util";
import { NeedsPerson } from "../debianPackages.mjs";
import { contentOf, listBackups, run, sha256Of } from "./backups.mjs";
import { binFolder, majorOf } from "./binaries.mjs";
import { openCluster, runningPort, stopPostgres } from "./cluster.mjs";
import { claimFolder, dataRoot, makeFolder } from "./places.mjs";
import { connected, databaseName, ensureDatabase } from "./roles.mjs";

/**
 * Restores a backup into a new cluster, counts and compares everything, and only then puts it in the place of the old
 * one, which is kept beside it.
 *
 * @param file a dump; the newest backup of this shop by default
 */
export async function restoreShop(places, file, say) {
  const chosen = file ? listBackups(join(file, "..")).find((one) => one.dump === file) : listBackups(places.backups)[0];
  if (!chosen) {
    throw new NeedsPerson(file ? `${file} has no manifest beside it.` : `There is no backup in ${places.backups}.`);
  }
  if (runningPort(places.cluster) !== null) {
    throw new NeedsPerson("This shop is running. Stop Pale Cap first; nothing was changed.");
  }
  const { dump, manifest } = chosen;
  if ((await sha256Of(dump)) !== manifest.sha256) {
    throw new NeedsPerson(`${dump} is not what it was when it was written: its checksum differs. Nothing was changed.`);
  }
  makeFolder(join(dataRoot(), "shops"));
  claimFolder(places);
  const fresh = { ...places, cluster: `${places.cluster}.restored.${Date.now()}` };
  const opened = await openFresh(fresh);
  try {
    await ensureDatabase(opened.urls.superuser);
    const url = `${opened.urls.superuser}${databaseName}`;
    const program = join(binFolder(majorOf(fresh.cluster)), "pg_restore");
    await run(program, ["--exit-on-error", "--no-owner", "--role=pale_cap_owner", "-d", url, dump]);
    const content = await connected(url, async (client) => {
      await client.query("BEGIN READ ONLY");
      return contentOf(client);
    });
    compare(manifest, content);
  } catch (error) {
    stopPostgres(fresh.cluster);
    rmSync(fresh.cluster, { recursive: true, force: true });
    throw error;
  }
  stopPostgres(fresh.cluster);
  const before = `${places.cluster}.before.${Date.now()}`;
  if (existsSync(places.cluster)) renameSync(places.cluster, before);
  renameSync(fresh.cluster, places.cluster);
  const count = Object.values(manifest.tables).reduce((sum, table) => sum + table.count, 0);
  say(
    `Restored the backup of ${manifest.takenAt}: ${count} rows in ${Object.keys(manifest.tables).length} tables, all as written.`,
  );
  if (existsSync(before)) say(`What was there before is kept in ${before}`);
}

/** The new cluster has the shop's passwords; where those are gone, new ones are made. */
function openFresh(fresh) {
  if (existsSync(fresh.cluster)) throw new Error(`${fresh.cluster} is there already.`);
  return openCluster(fresh);
}

function compare(manifest, content) {
  for (const [name, table] of Object.entries(manifest.tables)) {
    if (!isDeepStrictEqual(table, content.tables[name])) {
      throw new NeedsPerson(
        `The restored table ${name} is not what was written (${JSON.stringify(content.tables[name])} instead of ${JSON.stringify(table)}). The shop was left as it is.`,
      );
    }
  }
  // A sequence is of no snapshot: it may have gone on while the backup was taken, never back.
  for (const [name, value] of Object.entries(manifest.sequences)) {
    if (value !== null && BigInt(content.sequences[name] ?? 0) < BigInt(value)) {
      throw new NeedsPerson(
        `The restored sequence ${name} stands behind what was written. The shop was left as it is.`,
      );
    }
  }
}
