import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, beforeAll, expect, it } from "vitest";
import { listBackups, takeBackup } from "./backups.mjs";
import { openCluster, stopPostgres } from "./cluster.mjs";
import { shopPlaces } from "./places.mjs";
import { restoreShop } from "./restoring.mjs";
import { connected, databaseName } from "./roles.mjs";
import { openShop, withDatabase } from "./shop.mjs";
import { chooseWorld, openedWorld, worldsIn } from "./worlds.mjs";

let root;
const silent = () => undefined;
const query = (url, text) => connected(url, async (client) => (await client.query(text)).rows);
const places = () => shopPlaces(join(root, "checkout"));
const open = () => openShop(silent, places());
const choose = ({ clusterUrls, folder }, realm) => chooseWorld({ superuser: clusterUrls.superuser, folder, realm });
/** What the server writes down when it opens a database for the first time. */
const settle = (shop, realm) =>
  query(
    shop.urls.owner,
    `CREATE TABLE shop_identity AS SELECT '${realm}'::text AS realm; CREATE TABLE kept (words text)`,
  );

beforeAll(() => {
  root = mkdtempSync("/var/tmp/pale-cap-worlds-");
  chmodSync(root, 0o755);
  mkdirSync(join(root, "checkout"));
  process.env.PALE_CAP_DATA = join(root, "data");
});
afterAll(() => {
  stopPostgres(places().cluster);
  rmSync(root, { recursive: true, force: true });
  delete process.env.PALE_CAP_DATA;
});

it("a shop stands beside the demo, each can be opened again, and neither is in the other's way or backups", async () => {
  const demo = await open();
  expect(demo.name).toBe(databaseName);
  await settle(demo, "demo");
  await query(demo.urls.owner, "INSERT INTO kept VALUES ('the demo')");

  expect(await choose(demo, "shop")).toBe("pale_cap_shop");
  const shop = await open();
  expect(shop.name).toBe("pale_cap_shop");
  await settle(shop, "shop");
  await query(shop.urls.owner, "INSERT INTO kept VALUES ('the shop')");
  expect(await query(shop.urls.app, "SELECT 1 AS one")).toEqual([{ one: 1 }]);
  const { cluster, backups, urls } = shop;
  await takeBackup({ cluster, backups, url: urls.superuser, reason: "drill" }, silent);
  expect(listBackups(backups).map((one) => one.manifest.database)).toEqual(["pale_cap_shop"]);
  expect(listBackups(demo.backups)).toEqual([]);

  expect(await choose(shop, "demo")).toBe(databaseName);
  expect(await query((await open()).urls.owner, "SELECT words FROM kept")).toEqual([{ words: "the demo" }]);
  expect(await choose(demo, "shop")).toBe("pale_cap_shop");
  expect(await worldsIn(demo.clusterUrls.superuser)).toEqual([databaseName, "pale_cap_shop"]);
}, 60_000);

it("a restore brings one back and takes the other along as it is", async () => {
  const shop = await open();
  await query(shop.urls.owner, "DELETE FROM kept");
  await query(
    withDatabase({ ...shop, urls: shop.clusterUrls }, databaseName).urls.owner,
    "INSERT INTO kept VALUES ('later')",
  );
  stopPostgres(shop.cluster);
  const said = [];
  await restoreShop(places(), null, (words) => said.push(words));
  const { urls } = await openCluster(places());
  const words = async (name) =>
    (await query(`${urls.owner}${name}`, "SELECT words FROM kept ORDER BY words")).map((row) => row.words);
  expect(await words("pale_cap_shop")).toEqual(["the shop"]);
  expect(await words(databaseName)).toEqual(["later", "the demo"]);
  expect(said.join(" ")).toContain("pale_cap, is there as it was");
}, 60_000);

it("a mark that names no database of ours counts for nothing", () => {
  writeFileSync(join(places().folder, "opened"), "postgres\n");
  expect(openedWorld(places().folder)).toBe(databaseName);
});
