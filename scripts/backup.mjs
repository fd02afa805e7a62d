// npm run backup: one consistent, checksummed copy of the shop, outside its data folder; works while it runs.
import { ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";

try {
  await ensurePackages();
  ensurePostgres();
  const { existsSync } = await import("node:fs");
  const { join } = await import("node:path");
  const { openCluster, runningPort, stopPostgres } = await import("./postgres/cluster.mjs");
  const { takeBackup } = await import("./postgres/backups.mjs");
  const { shopPlaces } = await import("./postgres/places.mjs");
  const { withDatabase } = await import("./postgres/shop.mjs");
  const { worldsIn } = await import("./postgres/worlds.mjs");
  const places = shopPlaces();
  if (!existsSync(join(places.cluster, "PG_VERSION"))) throw new NeedsPerson("This checkout has no shop yet.");
  const wasRunning = runningPort(places.cluster) !== null;
  const opened = await openCluster(places);
  try {
    for (const name of await worldsIn(opened.urls.superuser)) {
      const { urls, cluster, backups } = withDatabase(opened, name);
      await takeBackup({ cluster, backups, url: urls.superuser, reason: "asked for" }, console.log);
    }
  } finally {
    if (!wasRunning) stopPostgres(places.cluster);
  }
} catch (error) {
  console.error(error instanceof NeedsPerson ? error.message : error);
  process.exitCode = 1;
}
