import { existsSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { NeedsPerson } from "../debianPackages.mjs";
import { adoptOldPlace } from "./adoption.mjs";
import { installedMajors, majorOf } from "./binaries.mjs";
import { openCluster, runningPort, startPostgres, stopPostgres } from "./cluster.mjs";
import { withLock } from "./lock.mjs";
import { claimFolder, dataRoot, makeFolder, orphanedShops, shopPlaces } from "./places.mjs";
import { ensureDatabase } from "./roles.mjs";
import { backupsOf, openedWorld } from "./worlds.mjs";

/** Brings up this checkout's shop; an older place is adopted, one whose checkout is gone is told. */
export async function openShop(say = console.log, places = shopPlaces()) {
  makeFolder(join(dataRoot(), "shops"));
  const isNew = !existsSync(join(places.cluster, "PG_VERSION"));
  claimFolder(places);
  if (isNew && !(await adoptOldPlace(places, say))) tellOrphans(say);
  const opened = await openCluster(places);
  tellNewer(places.cluster, say);
  const name = openedWorld(places.folder);
  await ensureDatabase(opened.urls.superuser, name);
  return withDatabase(opened, name);
}

/** A cluster's addresses with the name of one of its databases, and where that one's backups lie. */
export function withDatabase(opened, name) {
  const urls = Object.fromEntries(Object.entries(opened.urls).map(([role, url]) => [role, `${url}${name}`]));
  return { ...opened, name, urls, backups: backupsOf(opened.backups, name), clusterUrls: opened.urls };
}

function tellOrphans(say) {
  const orphans = orphanedShops();
  if (orphans.length === 0) return;
  say("This checkout has no shop yet; a new one is made. There are shops whose checkout is gone:");
  for (const { key, checkout } of orphans) say(`  ${checkout}   opened here by: npm start -- --open ${key}`);
}

function tellNewer(cluster, say) {
  const own = majorOf(cluster);
  const newest = installedMajors().at(-1);
  if (newest === own) return;
  say(
    `PostgreSQL ${newest} is on this machine; this shop stays with ${own}. To move it: npm run backup, stop, npm run restore`,
  );
}

/** Makes a shop whose checkout is gone this checkout's own; one that has a shop keeps it. */
export function openOrphan(key, places = shopPlaces()) {
  const orphan = orphanedShops().find((one) => one.key === key);
  if (!orphan) throw new NeedsPerson(`There is no shop ${key} whose checkout is gone.`);
  if (existsSync(join(places.cluster, "PG_VERSION"))) {
    throw new NeedsPerson(`This checkout has a shop of its own in ${places.folder}. Nothing was changed.`);
  }
  if (runningPort(join(orphan.folder, "cluster")) !== null) stopPostgres(join(orphan.folder, "cluster"));
  // An empty folder of this checkout, from a start that went no further.
  rmSync(join(places.folder, "checkout"), { force: true });
  if (existsSync(places.folder)) renameSync(places.folder, `${places.folder}.empty.${Date.now()}`);
  renameSync(orphan.folder, places.folder);
  writeFileSync(join(places.folder, "checkout"), `${places.checkout}\n`);
}

const lookMilliseconds = 1000;

/** Looks after a cluster while its server runs: a postgres that was killed is started again, on the same port. */
export function watchCluster({ cluster, folder, port }, say) {
  let isStopped = false;
  let isStarting = false;
  let isTold = false;
  const timer = setInterval(async () => {
    if (isStopped || isStarting || runningPort(cluster) !== null) return;
    isStarting = true;
    try {
      await withLock(join(folder, "lock"), async () => {
        if (!isStopped && runningPort(cluster) === null) await startPostgres(cluster, { wantedPort: port });
      });
      say("The database had ended and is running again; nothing that was stored is lost.");
      isTold = false;
    } catch (error) {
      // What the killed one left may still be ending: the next look tries again.
      if (!isTold) say(`The database has ended and does not start yet: ${error.message}`);
      isTold = true;
    } finally {
      isStarting = false;
    }
  }, lookMilliseconds);
  return async () => {
    isStopped = true;
    clearInterval(timer);
    while (isStarting) await new Promise((resolve) => setTimeout(resolve, 50));
  };
}
