import { ensureClientBuild } from "./clientBuild.mjs";
import { removeCluster, startCluster, sweepTestClusters } from "./cluster.mjs";
import { ensureChromium, ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";

/** Runs a module of e2e with everything a browser run needs: packages, PostgreSQL, Chromium, the client, a cluster of its own. */
export async function runInBrowser(module) {
  const clusterName = `test-${process.pid}`;
  let isStarted = false;
  try {
    ensurePackages();
    ensurePostgres();
    ensureChromium();
    ensureClientBuild();
    sweepTestClusters();
    process.env.TEST_POSTGRES_ADDRESS = startCluster(clusterName);
    isStarted = true;
    const { register } = await import("tsx/esm/api");
    register();
    await import(module);
  } catch (error) {
    console.error(error instanceof NeedsPerson ? error.message : error);
    process.exitCode = 1;
  } finally {
    if (isStarted) removeCluster(clusterName);
  }
}
