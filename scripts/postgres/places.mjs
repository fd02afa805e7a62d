import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, realpathSync, writeFileSync } from "node:fs";
import { homedir } from "node:os";
import { join, sep } from "node:path";
import { NeedsPerson } from "../debianPackages.mjs";
import { checkout } from "../paths.mjs";

export const uid = process.getuid();
const isRoot = uid === 0;

/** Where shops lie: outside every checkout, so that cleaning one up harms nothing. */
export function dataRoot() {
  if (process.env.PALE_CAP_DATA) return process.env.PALE_CAP_DATA;
  return isRoot ? "/var/lib/pale-cap" : join(userData(), "pale-cap");
}

/** Where backups lie: outside the data folder, so that losing one does not lose the other. */
function backupRoot() {
  if (process.env.PALE_CAP_BACKUPS) return process.env.PALE_CAP_BACKUPS;
  if (process.env.PALE_CAP_DATA) return `${process.env.PALE_CAP_DATA.replace(/\/+$/, "")}-backups`;
  return isRoot ? "/var/backups/pale-cap" : join(userData(), "pale-cap-backups");
}

const userData = () => process.env.XDG_DATA_HOME || join(homedir(), ".local/share");

/** Which shop belongs to a checkout. */
export const keyOf = (path) => createHash("sha256").update(path).digest("hex").slice(0, 12);

/** The folders of this checkout's shop; none of them needs to exist. */
export function shopPlaces(path = realpathSync(checkout)) {
  const folder = join(dataRoot(), "shops", keyOf(path));
  const backups = join(backupRoot(), keyOf(path));
  if (`${backups}${sep}`.startsWith(join(dataRoot(), sep))) {
    throw new NeedsPerson(`Backups must lie outside the data folder: PALE_CAP_BACKUPS is ${backups}.`);
  }
  return { checkout: path, folder, cluster: join(folder, "cluster"), secrets: join(folder, "secrets.json"), backups };
}

/** Clusters of tests, torture and benches: never a shop, and gone with the run that made them. */
export function scratchPlaces(name) {
  if (!/^(test|torture|bench)-\d+$/.test(name)) throw new Error(`"${name}" is no name of a scratch cluster.`);
  const folder = join(scratchRoot(), name);
  return { folder, cluster: join(folder, "cluster"), secrets: join(folder, "secrets.json") };
}

export const scratchRoot = () => join("/var/tmp", `pale-cap-scratch-${uid}`);

/** A folder of ours that others may pass but not read. */
export function makeFolder(path) {
  mkdirSync(path, { recursive: true, mode: 0o711 });
  if (isRoot && !asOwner("test", ["-x", path]).isGood) {
    throw new NeedsPerson(
      `The user postgres cannot reach ${path}. PostgreSQL does not run as root: choose another folder with PALE_CAP_DATA.`,
    );
  }
}

/** Writes down whose shop this is; a folder that says another checkout is not touched. */
export function claimFolder({ folder, checkout: path }) {
  const mark = join(folder, "checkout");
  if (existsSync(mark)) {
    const said = readFileSync(mark, "utf8").trim();
    if (said !== path) {
      throw new NeedsPerson(`${folder} holds the shop of ${said}, not of this checkout. Nothing was changed.`);
    }
    return;
  }
  makeFolder(folder);
  writeFileSync(mark, `${path}\n`);
}

/** Shops whose checkout is gone: what a person may be looking for. */
export function orphanedShops() {
  const shops = join(dataRoot(), "shops");
  if (!existsSync(shops)) return [];
  return readdirSync(shops).flatMap((key) => {
    const folder = join(shops, key);
    const mark = join(folder, "checkout");
    if (!existsSync(mark) || !existsSync(join(folder, "cluster/PG_VERSION"))) return [];
    const path = readFileSync(mark, "utf8").trim();
    return existsSync(path) ? [] : [{ key, folder, checkout: path }];
  });
}

/** PostgreSQL refuses to be root: then its programs run as the user postgres. */
export function asOwner(program, args, options = {}) {
  const [command, list] = isRoot ? ["runuser", ["-u", "postgres", "--", program, ...args]] : [program, args];
  const result = spawnSync(command, list, { cwd: "/", encoding: "utf8", stdio: ["pipe", "pipe", "pipe"], ...options });
  return { isGood: result.status === 0, output: result.stdout ?? "", errors: result.stderr ?? String(result.error) };
}

export function givenToOwner(...paths) {
  if (isRoot) spawnSync("chown", ["-R", "postgres", ...paths]);
}
