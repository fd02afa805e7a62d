import { existsSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { isDeepStrictEqual } from "node:util";
import { NeedsPerson } from "../debianPackages.mjs";
import { contentOf, listBackups, run, sha256Of } from "./backups.mjs";
import { binFolder, majorOf } from "./binaries.mjs";
import { openCluster, runningPort, stopPostgres } from "./cluster.mjs";
import { claimFolder, dataRoot, makeFolder } from "./places.mjs";
import { connected, databaseName, ensureDatabase } from "./roles.mjs";
import { backupsOf, isWorldName, openedWorld, worldsIn } from "./worlds.mjs";

/**
 * Restores a backup into a new cluster, counts and compares everything, and only then puts it in the place of the old
 * one, which is kept beside it.
 *
 * @param file a dump; the newest backup of this shop by default
 */
export async function restoreShop(places, file, say) {
  const folder = backupsOf(places.backups, openedWorld(places.folder));
  const chosen = file ? listBackups(join(file, "..")).find((one) => one.dump === file) : listBackups(folder)[0];
  if (!chosen) {
    throw new NeedsPerson(file ? `${file} has no manifest beside it.` : `There is no backup in ${folder}.`);
  }
  if (runningPort(places.cluster) !== null) {
    throw new NeedsPerson("This shop is running. Stop Pale Cap first; nothing was changed.");
  }
  const { dump, manifest } = chosen;
  const name = isWorldName(manifest.database) ? manifest.database : databaseName;
  if ((await sha256Of(dump)) !== manifest.sha256) {
    throw new NeedsPerson(`${dump} is not what it was when it was written: its checksum differs. Nothing was changed.`);
  }
  makeFolder(join(dataRoot(), "shops"));
  claimFolder(places);
  const fresh = { ...places, cluster: `${places.cluster}.restored.${Date.now()}` };
  const opened = await openFresh(fresh);
  try {
    await ensureDatabase(opened.urls.superuser, name);
    const url = `${opened.urls.superuser}${name}`;
    const program = join(binFolder(majorOf(fresh.cluster)), "pg_restore");
    await run(program, ["--exit-on-error", "--no-owner", "--role=pale_cap_owner", "-d", url, dump]);
    const content = await connected(url, async (client) => {
      await client.query("BEGIN READ ONLY");
      return contentOf(client);
    });
    compare(manifest, content);
    await carryOver({ places, fresh: opened, without: name }, say);
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

/** The other database of the old cluster goes along as it is; one that cannot be read stays in what is kept, and is told. */
async function carryOver({ places, fresh, without }, say) {
  if (!existsSync(join(places.cluster, "PG_VERSION"))) return;
  try {
    const old = await openCluster(places);
    for (const name of (await worldsIn(old.urls.superuser)).filter((one) => one !== without)) {
      const dump = join(places.folder, `${name}.carried.${process.pid}`);
      try {
        const programs = binFolder(majorOf(places.cluster));
        await run(join(programs, "pg_dump"), ["-Fc", "-f", dump, "-d", `${old.urls.superuser}${name}`]);
        await ensureDatabase(fresh.urls.superuser, name);
        const url = `${fresh.urls.superuser}${name}`;
        await run(join(binFolder(majorOf(fresh.cluster)), "pg_restore"), [
          ...["--exit-on-error", "--no-owner", "--role=pale_cap_owner", "-d", url, dump],
        ]);
      } finally {
        rmSync(dump, { force: true });
      }
      say(`The other database, ${name}, is there as it was.`);
    }
  } catch (error) {
    say(`Another database of the old cluster could not be taken along; it is in what is kept. ${error.message}`);
  } finally {
    if (runningPort(places.cluster) !== null) stopPostgres(places.cluster);
  }
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
