import { ensureClientBuild } from "./clientBuild.mjs";
import { ensureChromium, ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";
import { openScratch, removeScratch, sweepScratch } from "./postgres/cluster.mjs";
import { ensureServerBuild } from "./serverBuild.mjs";

/** Runs a module of e2e with everything a browser run needs: packages, PostgreSQL, Chromium, client and server built, a cluster of its own. */
export async function runInBrowser(module) {
  const clusterName = `test-${process.pid}`;
  let isStarted = false;
  try {
    await ensurePackages();
    ensurePostgres();
    ensureChromium();
    await Promise.all([ensureClientBuild(), ensureServerBuild()]);
    sweepScratch();
    const { superuser, owner, app } = (await openScratch(clusterName)).urls;
    Object.assign(process.env, {
      TEST_POSTGRES_ADDRESS: superuser,
      TEST_POSTGRES_OWNER: owner,
      TEST_POSTGRES_APP: app,
    });
    isStarted = true;
    const { register } = await import("tsx/esm/api");
    register();
    await import(module);
  } catch (error) {
    console.error(error instanceof NeedsPerson ? error.message : error);
    process.exitCode = 1;
  } finally {
    if (isStarted) removeScratch(clusterName);
  }
}
