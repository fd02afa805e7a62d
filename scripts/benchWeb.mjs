// npm run bench:web: how long a hand waits on a full job, in Chromium. Prints, and never fails on a time.
import { ensureClientBuild } from "./clientBuild.mjs";
import { removeCluster, startCluster, sweepTestClusters } from "./cluster.mjs";
import { ensureChromium, ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";

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
  await import("../e2e/src/benchWeb.ts");
} catch (error) {
  console.error(error instanceof NeedsPerson ? error.message : error);
  process.exitCode = 1;
} finally {
  if (isStarted) removeCluster(clusterName);
}
