import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { NeedsPerson } from "./debianPackages.mjs";
import { checkout, runFolder } from "./paths.mjs";

/** Installs npm packages from the lock file, when it changed since the last time. */
export function ensurePackages() {
  const [major = 0, minor = 0] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new NeedsPerson(`Pale Cap needs Node 20.19 or later; this is ${process.versions.node}.`);
  }
  const stamp = join(checkout, "node_modules", ".pale-cap-lock");
  const wanted = createHash("sha256")
    .update(readFileSync(join(checkout, "package-lock.json")))
    .digest("hex");
  const isInstalled = () => existsSync(stamp) && readFileSync(stamp, "utf8") === wanted;
  if (isInstalled()) return;
  // A start and a test run at once would take each other's packages away in the middle.
  const release = waitForTurn();
  try {
    if (!isInstalled()) install(stamp, wanted);
  } finally {
    release();
  }
}

/** Holds a lock file with this process's id; one left behind by a process that is gone counts for nothing. */
function waitForTurn() {
  const lock = join(runFolder(), "npm-ci.lock");
  for (;;) {
    try {
      writeFileSync(lock, String(process.pid), { flag: "wx" });
      return () => rmSync(lock, { force: true });
    } catch {
      if (!isAlive(lock)) rmSync(lock, { force: true });
      else Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 300);
    }
  }
}

function isAlive(lock) {
  try {
    const pid = Number(readFileSync(lock, "utf8"));
    // The holder writes its id a moment after it made the file: an empty one is alive.
    return pid === 0 || process.kill(pid, 0);
  } catch (error) {
    return error.code === "EPERM";
  }
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
