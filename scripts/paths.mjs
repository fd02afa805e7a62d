import { mkdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

/** The project's folder. */
export const checkout = dirname(dirname(fileURLToPath(import.meta.url)));

/** Stamps, process marks and reports of runs; not in git. */
export function runFolder() {
  const folder = join(checkout, ".run");
  mkdirSync(folder, { recursive: true });
  return folder;
}
