import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join, relative } from "node:path";
import { NeedsPerson } from "./debianPackages.mjs";
import { checkout } from "./paths.mjs";

const sources = [
  "web/src",
  "web/public",
  "web/index.html",
  "web/vite.config.ts",
  "web/package.json",
  "web/tsconfig.json",
  "tsconfig.base.json",
  ...["core", "contract", "wording"].flatMap((name) => [`${name}/src`, `${name}/package.json`]),
  "package-lock.json",
];

/** Builds the client if anything it is made of changed since the last build. */
export function ensureClientBuild() {
  const dist = join(checkout, "web/dist");
  const stamp = join(dist, ".stamp");
  const wanted = sourceHash();
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
  console.log("Building the client.");
  const vite = join(checkout, "node_modules/vite/bin/vite.js");
  // Beside what is served, and put in its place when it is whole: a build that fails takes nothing away.
  const fresh = `${dist}.new.${process.pid}`;
  try {
    const result = spawnSync(
      process.execPath,
      [vite, "build", "--logLevel", "warn", "--outDir", fresh, "--emptyOutDir"],
      {
        cwd: join(checkout, "web"),
        stdio: ["ignore", "inherit", "inherit"],
      },
    );
    if (result.status !== 0) throw new NeedsPerson("The client could not be built; see the message above.");
    writeFileSync(join(fresh, ".stamp"), wanted);
    const old = `${dist}.old.${process.pid}`;
    if (existsSync(dist)) renameSync(dist, old);
    renameSync(fresh, dist);
    rmSync(old, { recursive: true, force: true });
  } finally {
    rmSync(fresh, { recursive: true, force: true });
  }
}

function sourceHash() {
  const hash = createHash("sha256");
  for (const source of sources) {
    for (const file of filesUnder(join(checkout, source)))
      hash.update(relative(checkout, file)).update(readFileSync(file));
  }
  return hash.digest("hex");
}

function filesUnder(path) {
  if (!existsSync(path)) return [];
  if (!/\/[^/.]+$/.test(path)) return [path];
  return readdirSync(path, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && !entry.name.includes(".test."))
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
    .sort();
}
