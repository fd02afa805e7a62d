// npm run restore [-- FILE]: the newest backup, or a given one, into a new cluster; compared, then put in place.
import { ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";

try {
  await ensurePackages();
  ensurePostgres();
  const { resolve } = await import("node:path");
  const { restoreShop } = await import("./postgres/restoring.mjs");
  const { shopPlaces } = await import("./postgres/places.mjs");
  const [file] = process.argv.slice(2);
  await restoreShop(shopPlaces(), file ? resolve(file) : null, console.log);
} catch (error) {
  console.error(error instanceof NeedsPerson ? error.message : error);
  process.exitCode = 1;
}
