import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join, relative } from "node:path";
import { checkout } from "./paths.mjs";

/** Workspaces that both client and server are made of, and what decides how they are compiled. */
export const commonSources = [
  ...["core", "contract", "wording"].flatMap((name) => [`${name}/src`, `${name}/package.json`]),
  "tsconfig.base.json",
  "package-lock.json",
];

/**
 * Builds into a folder if anything that it is made of changed since the last build: beside what is there, and put in its place
 * when it is whole, so that a build that fails takes nothing away.
 *
 * @param build fills the folder that it is given, or throws
 */
export async function ensureBuilt({ folder, sources, build }) {
  const dist = join(checkout, folder);
  const stamp = join(dist, ".stamp");
  const wanted = sourceHash(sources);
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
  const fresh = `${dist}.new.${process.pid}`;
  try {
    await build(fresh);
    writeFileSync(join(fresh, ".stamp"), wanted);
    const old = `${dist}.old.${process.pid}`;
    if (existsSync(dist)) renameSync(dist, old);
    renameSync(fresh, dist);
    rmSync(old, { recursive: true, force: true });
  } finally {
    rmSync(fresh, { recursive: true, force: true });
  }
}

function sourceHash(sources) {
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
