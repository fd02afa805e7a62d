import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { createServer } from "node:net";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { NeedsPerson } from "../debianPackages.mjs";
import { oldPlaces } from "./adoption.mjs";
import { listBackups, takeBackup } from "./backups.mjs";
import { openScratch, postmasterPid, removeScratch, runningPort, startPostgres, stopPostgres } from "./cluster.mjs";
import { orphanedShops, shopPlaces, uid } from "./places.mjs";
import { restoreShop } from "./restoring.mjs";
import { connected } from "./roles.mjs";
import { openOrphan, openShop, watchCluster } from "./shop.mjs";

let root;
const said = [];
const say = (words) => said.push(words);
/** A checkout of its own, so that each test has a shop of its own. */
function checkout(name) {
  const path = join(root, name);
  mkdirSync(path, { recursive: true });
  return path;
}
const places = (name) => shopPlaces(checkout(name));
const opened = (name) => openShop(say, places(name));
const query = (url, text) => connected(url, async (client) => (await client.query(text)).rows);
const running = new Set();

/** Puts a thousand rows into a shop, as its owner. */
async function withRows(name) {
  const shop = await opened(name);
  running.add(shop.cluster);
  await query(shop.urls.owner, "CREATE TABLE kept (id serial PRIMARY KEY, words text)");
  await query(shop.urls.owner, "INSERT INTO kept (words) SELECT 'row ' || n FROM generate_series(1, 1000) n");
  return shop;
}
const count = async (shop) => (await query(shop.urls.owner, "SELECT count(*)::int AS n FROM kept"))[0].n;

beforeAll(() => {
  root = mkdtempSync("/var/tmp/pale-cap-shops-");
  chmodSync(root, 0o755);
  process.env.PALE_CAP_DATA = join(root, "data");
});
afterAll(() => {
  for (const cluster of running) stopPostgres(cluster);
  rmSync(root, { recursive: true, force: true });
  delete process.env.PALE_CAP_DATA;
});

describe("starting a shop", () => {
  it("keeps its data outside the checkout, and every row when the passwords are lost", async () => {
    const shop = await withRows("lost-passwords");
    const inode = statSync(shop.cluster).ino;
    expect(shop.cluster.startsWith(shop.checkout)).toBe(false);
    stopPostgres(shop.cluster);
    rmSync(shop.secrets);
    const again = await opened("lost-passwords");
    expect(statSync(again.cluster).ino).toBe(inode);
    expect(await count(again)).toBe(1000);
    // The same while it runs.
    rmSync(shop.secrets);
    expect(await count(await opened("lost-passwords"))).toBe(1000);
    writeFileSync(shop.secrets, "{ half a fi");
    expect(await count(await opened("lost-passwords"))).toBe(1000);
  });

  it("makes new clusters with checksums, and lets the application add and not own", async () => {
    const shop = await opened("checksums");
    running.add(shop.cluster);
    expect((await query(shop.urls.owner, "SHOW data_checksums"))[0].data_checksums).toBe("on");
    const [role] = await query(
      shop.urls.app,
      "SELECT rolsuper, rolcreatedb, rolcreaterole FROM pg_roles WHERE rolname = current_user",
    );
    expect(role).toEqual({ rolsuper: false, rolcreatedb: false, rolcreaterole: false });
    expect(statSync(shop.secrets).mode & 0o077).toBe(0);
  });

  it("refuses a folder that holds something else, and one of another checkout, and touches neither", async () => {
    const strange = places("strange");
    mkdirSync(strange.cluster, { recursive: true });
    writeFileSync(join(strange.cluster, "letters.txt"), "dear");
    writeFileSync(join(strange.folder, "checkout"), `${strange.checkout}\n`);
    await expect(openShop(say, strange)).rejects.toThrow(/no database/);
    expect(readFileSync(join(strange.cluster, "letters.txt"), "utf8")).toBe("dear");
    writeFileSync(join(strange.folder, "checkout"), "/somewhere/else\n");
    await expect(openShop(say, strange)).rejects.toThrow(/not of this checkout/);
  });

  it("fails at once over a bad line of the configuration, with its words", async () => {
    const shop = await opened("bad-line");
    stopPostgres(shop.cluster);
    writeFileSync(join(shop.cluster, "postgresql.conf"), "\nshared_buffers = banana\n", { flag: "a" });
    await expect(opened("bad-line")).rejects.toThrow(/banana/);
    expect(runningPort(shop.cluster)).toBeNull();
  });

  it("refuses a database of a PostgreSQL that is not here, and changes nothing", async () => {
    const shop = await opened("older");
    stopPostgres(shop.cluster);
    writeFileSync(join(shop.cluster, "PG_VERSION"), "9\n");
    await expect(opened("older")).rejects.toThrow(/PostgreSQL 9.*not on this machine/s);
    writeFileSync(join(shop.cluster, "PG_VERSION"), "15\n");
  });

  it("goes on to the next port where one is taken", async () => {
    const blocker = createServer();
    await new Promise((resolve) => blocker.listen(0, "127.0.0.1", resolve));
    const { port } = blocker.address();
    const shop = await opened("ports");
    stopPostgres(shop.cluster);
    await expect(startPostgres(shop.cluster, { wantedPort: port })).rejects.toThrow(NeedsPerson);
    blocker.close();
    const [first, second] = [await opened("ports"), await opened("more-ports")];
    for (const one of [first, second]) running.add(one.cluster);
    expect(first.port).not.toBe(second.port);
  });

  it("tells of shops whose checkout is gone, and opens one for this checkout", async () => {
    const shop = await withRows("moved-away");
    stopPostgres(shop.cluster);
    rmSync(shop.checkout, { recursive: true });
    said.length = 0;
    const here = await opened("arrived");
    stopPostgres(here.cluster);
    expect(said.join("\n")).toContain(`${shop.checkout}   opened here by: npm start -- --open`);
    expect(() => openOrphan(orphanedShops()[0].key, places("arrived"))).toThrow(/a shop of its own/);
    openOrphan(orphanedShops()[0].key, places("arrived-empty"));
    const again = await opened("arrived-empty");
    running.add(again.cluster);
    expect(await count(again)).toBe(1000);
  });
});

describe("a shop in an older place", () => {
  /** As earlier versions left it: in the checkout, everything the superuser's, its password file lost. */
  async function olderShop(name, where = 0) {
    const old = oldPlaces(checkout(name))[where];
    const name_ = `test-${process.pid}`;
    const scratch = await openScratch(name_);
    await query(`${scratch.urls.superuser}postgres`, "CREATE DATABASE pale_cap");
    const url = `${scratch.urls.superuser}pale_cap`;
    await query(url, "CREATE TABLE kept (id serial PRIMARY KEY, words text)");
    await query(url, "CREATE SEQUENCE numbers");
    await query(url, "INSERT INTO kept (words) SELECT 'row ' || n FROM generate_series(1, 1000) n");
    stopPostgres(scratch.cluster);
    mkdirSync(join(old, ".."), { recursive: true });
    spawnSync("cp", ["-a", scratch.cluster, old]);
    removeScratch(name_);
    return old;
  }
  const digestOf = (folder) =>
    createHash("sha256")
      .update(
        readdirSync(folder, { recursive: true, withFileTypes: true })
          .filter((entry) => entry.isFile())
          .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
          .sort()
          .map((file) => `${file} ${createHash("sha256").update(readFileSync(file)).digest("hex")}`)
          .join("\n"),
      )
      .digest("hex");

  it.each([0, 1])("is taken over whole, after a backup, and left as it was (place %i)", async (where) => {
    const name = `old-${where}`;
    const old = await olderShop(name, where);
    const before = digestOf(old);
    const shop = await opened(name);
    running.add(shop.cluster);
    expect(await count(shop)).toBe(1000);
    const owners = await query(
      shop.urls.owner,
      "SELECT DISTINCT relowner::regrole::text AS owner FROM pg_class WHERE relnamespace = 'public'::regnamespace AND relkind IN ('r', 'S')",
    );
    expect(owners).toEqual([{ owner: "pale_cap_owner" }]);
    expect(listBackups(shop.backups)[0].manifest.tables.kept.count).toBe(1000);
    expect(digestOf(old)).toBe(before);
    // The next start looks at its own folder, not at the old one again.
    await query(shop.urls.owner, "INSERT INTO kept (words) VALUES ('new')");
    stopPostgres(shop.cluster);
    expect(await count(await opened(name))).toBe(1001);
    rmSync(join(old, ".."), { recursive: true, force: true });
  });

  it("is not taken over while it still runs", async () => {
    const old = await olderShop("old-running");
    await startPostgres(old);
    await expect(opened("old-running")).rejects.toThrow(/still running/);
    stopPostgres(old);
    expect(existsSync(join(places("old-running").cluster, "PG_VERSION"))).toBe(false);
  });

  it("is looked for under this person's number", () => {
    expect(oldPlaces("/x/y").every((place) => place.includes(`.pg-${uid}-main`))).toBe(true);
  });
});

describe("backup and restore", () => {
  const backUp = (shop) =>
    takeBackup({ cluster: shop.cluster, backups: shop.backups, url: shop.urls.superuser, reason: "drill" }, say);

  it("bring a destroyed shop back, row by row", async () => {
    const shop = await withRows("drill");
    await backUp(shop);
    await query(shop.urls.owner, "INSERT INTO kept (words) VALUES ('after the backup')");
    stopPostgres(shop.cluster);
    rmSync(shop.folder, { recursive: true });
    await restoreShop(places("drill"), null, say);
    const again = await opened("drill");
    running.add(again.cluster);
    expect(await count(again)).toBe(1000);
    const rows = await query(again.urls.app, "SELECT 1 AS one");
    expect(rows).toEqual([{ one: 1 }]);
    // The next id does not collide with a restored one.
    await query(again.urls.owner, "INSERT INTO kept (words) VALUES ('new')");
  });

  it("keep what stood before, and refuse while the shop runs", async () => {
    const shop = await withRows("keeps");
    await backUp(shop);
    await expect(restoreShop(places("keeps"), null, say)).rejects.toThrow(/is running/);
    await query(shop.urls.owner, "DELETE FROM kept");
    stopPostgres(shop.cluster);
    await restoreShop(places("keeps"), null, say);
    expect(readdirSync(shop.folder).some((name) => name.startsWith("cluster.before."))).toBe(true);
    const again = await opened("keeps");
    running.add(again.cluster);
    expect(await count(again)).toBe(1000);
  });

  it("refuse a dump that changed on the disk, and one that does not hold what it says", async () => {
    const shop = await withRows("tampered");
    await backUp(shop);
    stopPostgres(shop.cluster);
    const [{ dump, manifest }] = listBackups(shop.backups);
    const good = readFileSync(dump);
    const bad = Buffer.from(good);
    bad[good.length - 30] ^= 1;
    writeFileSync(dump, bad);
    await expect(restoreShop(places("tampered"), null, say)).rejects.toThrow(/checksum differs/);
    writeFileSync(dump, good);
    const path = dump.replace(".dump", ".manifest.json");
    const lie = { ...manifest, tables: { kept: { ...manifest.tables.kept, hash: "1" } } };
    writeFileSync(path, JSON.stringify(lie));
    await expect(restoreShop(places("tampered"), null, say)).rejects.toThrow(/not what was written/);
    const left = await opened("tampered");
    running.add(left.cluster);
    expect(await count(left)).toBe(1000);
    expect(readdirSync(shop.folder).filter((name) => name.includes("restored"))).toEqual([]);
  });

  it("take what stood at one moment, however much is written meanwhile", async () => {
    const shop = await withRows("moment");
    let isOver = false;
    const writing = (async () => {
      while (!isOver) await query(shop.urls.owner, "INSERT INTO kept (words) VALUES ('meanwhile')");
    })();
    const manifest = await backUp(shop);
    isOver = true;
    await writing;
    stopPostgres(shop.cluster);
    // Restoring compares counts and contents with the manifest: they are of the same moment, or this throws.
    await restoreShop(places("moment"), null, say);
    const again = await opened("moment");
    running.add(again.cluster);
    expect(await count(again)).toBe(manifest.tables.kept.count);
  });

  it("keep so many and no more, and lie outside the data folder", async () => {
    const shop = await withRows("many");
    process.env.PALE_CAP_KEEP_BACKUPS = "2";
    for (let n = 0; n < 3; n++) await backUp(shop);
    delete process.env.PALE_CAP_KEEP_BACKUPS;
    expect(listBackups(shop.backups)).toHaveLength(2);
    process.env.PALE_CAP_BACKUPS = join(root, "data", "inside");
    expect(() => places("many")).toThrow(/outside the data folder/);
    delete process.env.PALE_CAP_BACKUPS;
  });
});

describe("the watch over the cluster", () => {
  it("brings a killed postmaster back on the same port, with every row", async () => {
    const shop = await withRows("killed");
    const stopWatching = watchCluster(shop, say);
    process.kill(postmasterPid(shop.cluster), "SIGKILL");
    const deadline = Date.now() + 20_000;
    let back = null;
    while (back === null && Date.now() < deadline) {
      await new Promise((resolve) => setTimeout(resolve, 200));
      back = await count(shop).catch(() => null);
    }
    await stopWatching();
    expect(back).toBe(1000);
    expect(runningPort(shop.cluster)).toBe(shop.port);
  });
});

it("the names of scratch clusters are theirs alone: no test can open or remove a shop", async () => {
  expect(() => removeScratch("main")).toThrow();
  expect(() => removeScratch("../../data")).toThrow();
  await expect(openScratch("main")).rejects.toThrow();
});
