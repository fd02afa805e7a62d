// npm run demo:past: draws from the demo shop's invented past what the casebook keeps of it, and puts it beside the generator, so that a
// first start need not.
import { writeFileSync } from "node:fs";
import { gzipSync } from "node:zlib";
import { register } from "tsx/esm/api";
import { ensurePostgres } from "./debianPackages.mjs";
import { openScratch, removeScratch } from "./postgres/cluster.mjs";

ensurePostgres();
register();
const name = `bench-${process.pid}`;
const cluster = await openScratch(name);
try {
  const { migrate } = await import("../server/src/database/migrate.ts");
  const { openDatabase } = await import("../server/src/database/database.ts");
  const { loadDemoShop } = await import("../server/src/database/demo/loadDemoShop.ts");
  const { foldedPastFile, loadPast } = await import("../server/src/database/demo/past/loadPast.ts");
  const { foldPast } = await import("../server/src/database/demo/past/foldPast.ts");
  const url = `${cluster.urls.superuser}postgres`;
  await migrate(url, { applicationRole: null });
  const now = new Date("2026-11-23T12:00:00Z");
  const database = openDatabase(url, "demo", 2);
  await loadDemoShop(database, now);
  await loadPast(url, now, false);
  const started = Date.now();
  const folded = await foldPast(database, now);
  await database.close();
  const file = gzipSync(JSON.stringify(folded), { level: 9 });
  writeFileSync(foldedPastFile, file);
  const seconds = Math.round((Date.now() - started) / 1000);
  console.log(`${folded.closed_jobs.length} jobs drawn in ${seconds} s, ${Math.round(file.length / 1024)} KiB.`);
} finally {
  removeScratch(name);
}
