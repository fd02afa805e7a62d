import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { NeedsPerson } from "./debianPackages.mjs";
import { checkout, runFolder } from "./paths.mjs";
import { withLock } from "./postgres/lock.mjs";

/** Installs npm packages from the lock file, when it or Node changed since the last time. */
export async function ensurePackages() {
  const [major = 0, minor = 0] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new NeedsPerson(`Pale Cap needs Node 20.19 or later; this is ${process.versions.node}.`);
  }
  const stamp = join(checkout, "node_modules", ".pale-cap-lock");
  const wanted = stampOf(readFileSync(join(checkout, "package-lock.json")));
  const isInstalled = () => existsSync(stamp) && readFileSync(stamp, "utf8") === wanted;
  if (isInstalled()) return;
  // A start and a test run at once would take each other's packages away in the middle.
  await withLock(join(runFolder(), "npm-ci.lock"), async () => {
    if (!isInstalled()) install(stamp, wanted);
  });
}

/** Some packages are built for one Node and one machine: another one needs its own. */
export function stampOf(lockFile, { modules } = process.versions, { platform, arch } = process) {
  return createHash("sha256").update(lockFile).update(`node ${modules} ${platform} ${arch}`).digest("hex");
}

function install(stamp, wanted) {
  console.error("Installing npm packages from the lock file (about a minute).");
  // npm's own settings of an outer `npm start` must not leak into this one.
  const env = Object.fromEntries(Object.entries(process.env).filter(([key]) => !key.startsWith("npm_lifecycle")));
  const result = spawnSync("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"], {
    cwd: checkout,
    stdio: ["ignore", "ignore", "inherit"],
    env,
  });
  if (result.status !== 0) throw new NeedsPerson("`npm ci` did not work; see its message above.");
  writeFileSync(stamp, wanted);
}
