import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { connected, databaseName, ensureDatabase } from "./roles.mjs";

/**
 * A cluster holds one or two databases of this product: the one that the first start made, and beside it a shop or the
 * demo, whichever that one is not. Which of them is open is written down in the shop's folder.
 */
export const isWorldName = (name) => name === databaseName || /^pale_cap_(shop|demo)$/.test(name);

const mark = (folder) => join(folder, "opened");

/** The database that was open last; the first one where nobody ever chose. */
export function openedWorld(folder) {
  if (!existsSync(mark(folder))) return databaseName;
  const name = readFileSync(mark(folder), "utf8").trim();
  return isWorldName(name) ? name : databaseName;
}

/** Backups of the first database lie in the folder itself, of the other one in a folder of its name. */
export const backupsOf = (backups, name) => (name === databaseName ? backups : join(backups, name));

/**
 * Makes the database of a world the one that is open, and makes it first where there is none.
 *
 * @returns its name
 */
export async function chooseWorld({ superuser, folder, realm }) {
  const first = await realmOf(`${superuser}${databaseName}`);
  const name = first === null || first === realm ? databaseName : `${databaseName}_${realm}`;
  await ensureDatabase(superuser, name);
  writeFileSync(mark(folder), `${name}\n`);
  return name;
}

/** What a database was settled as; null where it never was opened. */
async function realmOf(url) {
  return connected(url, async (client) => {
    const table = await client.query("SELECT to_regclass('public.shop_identity') AS found");
    if (table.rows[0].found === null) return null;
    const { rows } = await client.query("SELECT realm FROM shop_identity");
    return rows[0]?.realm ?? null;
  });
}

/** Every database of this product in a cluster. */
export async function worldsIn(superuser) {
  return connected(`${superuser}postgres`, async (client) => {
    const { rows } = await client.query("SELECT datname AS name FROM pg_database ORDER BY 1");
    return rows.map((row) => row.name).filter(isWorldName);
  });
}
