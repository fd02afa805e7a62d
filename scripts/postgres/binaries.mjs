import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { NeedsPerson } from "../debianPackages.mjs";

const root = "/usr/lib/postgresql";

/** Major versions whose server is installed, oldest first. */
export function installedMajors() {
  if (!existsSync(root)) return [];
  return readdirSync(root)
    .filter((major) => ["initdb", "postgres", "pg_dump"].every((name) => existsSync(join(root, major, "bin", name))))
    .map(Number)
    .filter(Number.isFinite)
    .sort((a, b) => a - b);
}

export const binFolder = (major) => join(root, String(major), "bin");

export function newestMajor() {
  const major = installedMajors().at(-1);
  if (major === undefined) throw new NeedsPerson("No PostgreSQL server binaries were found.");
  return major;
}

/** The version that a folder was made by decides; a newer one on the machine is told, not taken. */
export function majorOf(cluster) {
  const major = Number(readFileSync(join(cluster, "PG_VERSION"), "utf8").trim());
  if (!installedMajors().includes(major)) {
    throw new NeedsPerson(
      `The database in ${cluster} is of PostgreSQL ${major}, which is not on this machine. Nothing was changed.\n` +
        `Install it (postgresql-${major}), or restore a backup into the one that is here: npm run restore`,
    );
  }
  return major;
}
