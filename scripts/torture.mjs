// npm run torture -- --minutes 5: kills server, database and browser at random while both write, and counts what is lost.
import { ensureClientBuild } from "./clientBuild.mjs";
import { ensureChromium, ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";
import { ensureServerBuild } from "./serverBuild.mjs";

const at = process.argv.indexOf("--minutes");
const minutes = at < 0 ? 5 : Number(process.argv[at + 1]);
const name = `torture-${process.pid}`;
let isOpen = false;
try {
  if (!(minutes > 0 && minutes <= 120)) throw new NeedsPerson("--minutes needs a number from 0 to 120.");
  await ensurePackages();
  ensurePostgres();
  ensureChromium();
  await Promise.all([ensureClientBuild(), ensureServerBuild()]);
  const { openScratch, postmasterPid, sweepScratch } = await import("./postgres/cluster.mjs");
  const { watchCluster } = await import("./postgres/shop.mjs");
  sweepScratch();
  // As durable as a shop's own: what counts here must survive a killed postmaster.
  const cluster = await openScratch(name, { isDurable: true });
  isOpen = true;
  const { superuser, owner, app } = cluster.urls;
  Object.assign(process.env, { TEST_POSTGRES_ADDRESS: superuser, TEST_POSTGRES_OWNER: owner, TEST_POSTGRES_APP: app });
  const stopWatching = watchCluster(cluster, () => undefined);
  const { register } = await import("tsx/esm/api");
  register();
  const { torture, resultLine } = await import("../e2e/src/torture/torture.ts");
  const result = await torture({ minutes, postmasterPid: () => postmasterPid(cluster.cluster), say: console.log });
  await stopWatching();
  console.log(resultLine(result));
  if (!result.isGood) process.exitCode = 1;
} catch (error) {
  console.error(error instanceof NeedsPerson ? error.message : error);
  process.exitCode = 1;
} finally {
  if (isOpen) (await import("./postgres/cluster.mjs")).removeScratch(name);
}
process.exit();
