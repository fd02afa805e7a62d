import { readFileSync } from "node:fs";
import { join } from "node:path";
import { checkout } from "./paths.mjs";

/** Packages that may run something of their own while they are installed: each was read, and is there for a reason. */
export const mayRunAtInstall = [
  // Puts the binary for this machine in place, out of a package of its own that is installed with it.
  "esbuild",
  // Watches files on macOS alone.
  "fsevents",
  // Builds the binding for serial ports where no built one fits.
  "@serialport/bindings-cpp",
];

/**
 * What is wrong with a lock file: a package without a sum of its content, from somewhere else than a registry, or one that would run
 * something at install and is on no list.
 *
 * @param text the lock file as it is stored
 */
export function lockFileFaults(text) {
  const { packages = {}, lockfileVersion } = JSON.parse(text);
  const faults = lockfileVersion >= 3 ? [] : [`lockfileVersion ${lockfileVersion}: sums are told from version 3 on`];
  for (const [place, entry] of Object.entries(packages)) {
    // The workspaces are this checkout itself.
    if (!place.includes("node_modules/") || entry.link) continue;
    const name = place.slice(place.lastIndexOf("node_modules/") + "node_modules/".length);
    if (entry.inBundle) continue;
    if (!/^sha512-/.test(entry.integrity ?? "")) faults.push(`${place}: no sha512 sum`);
    const { resolved = "", version = "" } = entry;
    if (/^(git|http:|file:|[\w-]+:.*[/]|github:)/.test(resolved) && !/^https:/.test(resolved))
      faults.push(`${place}: from ${resolved}`);
    if (!/^\d+[.]\d+[.]\d+/.test(version)) faults.push(`${place}: version ${version || "missing"}`);
    if (entry.hasInstallScript && !mayRunAtInstall.includes(name)) faults.push(`${place}: runs something at install`);
  }
  return faults;
}

if (process.argv[1] === import.meta.filename) {
  const faults = lockFileFaults(readFileSync(join(checkout, "package-lock.json"), "utf8"));
  for (const fault of faults) console.error(fault);
  console.log(faults.length === 0 ? "The lock file holds." : `${faults.length} faults in the lock file.`);
  process.exitCode = faults.length === 0 ? 0 : 1;
}
