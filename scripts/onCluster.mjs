import { ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";

/** Does TypeScript work on a PostgreSQL of its own, which is taken away afterwards; then the process ends. */
export async function runOnCluster(work) {
  const name = `bench-${process.pid}`;
  let isOpen = false;
  try {
    await ensurePackages();
    ensurePostgres();
    const { openScratch, sweepScratch } = await import("./postgres/cluster.mjs");
    sweepScratch();
    const { superuser, owner, app } = (await openScratch(name, { isDurable: true })).urls;
    isOpen = true;
    Object.assign(process.env, {
      TEST_POSTGRES_ADDRESS: superuser,
      TEST_POSTGRES_OWNER: owner,
      TEST_POSTGRES_APP: app,
    });
    const { register } = await import("tsx/esm/api");
    register();
    await work();
  } catch (error) {
    console.error(error instanceof NeedsPerson ? error.message : error);
    process.exitCode = 1;
  } finally {
    if (isOpen) (await import("./postgres/cluster.mjs")).removeScratch(name);
  }
  process.exit();
}
