import { randomUUID } from "node:crypto";
import type pg from "pg";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { cloneTemplate, dropDatabase, onPostgres } from "../testing/testApp";
import { knownDemoJobIds } from "./demo/knownDemoJobs";
import { type Settling, settleRealm } from "./settleRealm";

let urls: Awaited<ReturnType<typeof cloneTemplate>>;
let backUp: ReturnType<typeof vi.fn<Settling["backUp"]>>;
beforeEach(async () => {
  urls = await cloneTemplate();
  backUp = vi.fn<Settling["backUp"]>().mockResolvedValue();
});
afterEach(() => dropDatabase(urls));

const settled = (withDemo: boolean) => settleRealm(urls.owner, { withDemo, backUp });
const inDatabase = <T>(work: (client: pg.Client) => Promise<T>) => onPostgres(urls.owner, work);
const count = (table: string) =>
  inDatabase(async (client) => (await client.query(`SELECT count(*)::int AS n FROM ${table}`)).rows[0].n as number);

/** A job as an earlier version left it, with a board, a part, a reading and its correction, by a person. */
async function oldJob(id: string, personId: string): Promise<void> {
  const [board, net, position, part, first, second] = Array.from({ length: 6 }, randomUUID);
  await inDatabase(async (client) => {
    await client.query("INSERT INTO people (id, name) VALUES ($1, 'Somebody') ON CONFLICT DO NOTHING", [personId]);
    await client.query(
      "INSERT INTO jobs (id, realm, device_kind, created_at, person_id) VALUES ($1, 'shop', 'monitor', now(), $2)",
      [id, personId],
    );
    await client.query("INSERT INTO boards (id, job_id, width_metres, depth_metres) VALUES ($1, $2, 0.1, 0.1)", [
      board,
      id,
    ]);
    await client.query(
      "INSERT INTO nets (id, board_id, lineage_id, name, section) VALUES ($1, $2, $1, '12 V', 'output')",
      [net, board],
    );
    await client.query(
      `INSERT INTO positions (id, board_id, lineage_id, designator, kind, net_id)
       VALUES ($1, $2, $1, 'C1', 'electrolytic', $3)`,
      [position, board, net],
    );
    await client.query("INSERT INTO fitted_parts (id, position_id, origin) VALUES ($1, $2, 'found')", [part, position]);
    for (const [reading, supersedes] of [
      [first, null],
      [second, first],
    ]) {
      await client.query(
        `INSERT INTO readings (id, job_id, target_kind, target_id, fitted_part_id, quantity, is_powered, rig, is_withdrawn,
           supersedes_id, measured_at, received_at, person_id)
         VALUES ($1, $2, 'part', $3, $4, 'esr', false, '{}', false, $5, now(), now(), $6)`,
        [reading, id, position, part, supersedes, personId],
      );
    }
    await client.query(
      "INSERT INTO job_summaries (job_id, realm, number, is_closed) SELECT id, realm, number, false FROM jobs WHERE id = $1",
      [id],
    );
  });
}

const [demoJob = "", otherDemoJob = ""] = knownDemoJobIds;

describe("an empty database", () => {
  it("becomes the demo where the demo is wanted, else a shop, and stays what it was settled as", async () => {
    expect(await settled(true)).toBe("demo");
    expect(await settled(false)).toBe("demo");
  });
  it("becomes a shop where no demo is wanted, and where somebody was entered already", async () => {
    await inDatabase((client) => client.query("INSERT INTO people (id, name) VALUES ($1, 'Ona')", [randomUUID()]));
    expect(await settled(true)).toBe("shop");
    expect(await settled(true)).toBe("shop");
    expect(backUp).not.toHaveBeenCalled();
  });
  it("is settled once by two starts at the same moment", async () => {
    const both = await Promise.all([settled(true), settled(false)]);
    expect(both[0]).toBe(both[1]);
    expect(await count("shop_identity")).toBe(1);
  });
});

describe("a database from before", () => {
  it("with the demo's jobs alone is the demo: they move there, and none is taken out", async () => {
    await oldJob(demoJob, randomUUID());
    await oldJob(otherDemoJob, randomUUID());
    expect(await settled(false)).toBe("demo");
    expect(await inDatabase(async (client) => (await client.query("SELECT realm FROM jobs")).rows)).toEqual([
      { realm: "demo" },
      { realm: "demo" },
    ]);
    expect(
      await inDatabase(async (client) => (await client.query("SELECT DISTINCT realm FROM job_summaries")).rows),
    ).toEqual([{ realm: "demo" }]);
    expect(backUp).not.toHaveBeenCalled();
  });

  it("with a job beside them is a shop: they are backed up, then taken out with all that hangs on them", async () => {
    const [own, invented, real] = [randomUUID(), randomUUID(), randomUUID()];
    await oldJob(demoJob, invented);
    await oldJob(own, real);
    backUp.mockImplementation(async () => expect(await count("jobs")).toBe(2));
    expect(await settled(true)).toBe("shop");
    expect(backUp).toHaveBeenCalledTimes(1);
    const tables = ["jobs", "boards", "nets", "positions", "fitted_parts", "job_summaries", "people"];
    expect(await Promise.all(tables.map(count))).toEqual(tables.map(() => 1));
    expect(await count("readings")).toBe(2);
    const left = await inDatabase(async (client) => (await client.query("SELECT id, realm FROM jobs")).rows);
    expect(left).toEqual([{ id: own, realm: "shop" }]);
  });

  it("is left whole where the backup did not work", async () => {
    await oldJob(demoJob, randomUUID());
    await oldJob(randomUUID(), randomUUID());
    backUp.mockRejectedValue(new Error("the disk is full"));
    await expect(settled(true)).rejects.toThrow("the disk is full");
    expect(await count("jobs")).toBe(2);
    expect(await count("shop_identity")).toBe(0);
  });
});

it("the application may read what its database is, and never change it", async () => {
  await settled(true);
  await onPostgres(urls.app, async (client) => {
    expect((await client.query("SELECT realm FROM shop_identity")).rows).toEqual([{ realm: "demo" }]);
    for (const act of ["UPDATE shop_identity SET realm = 'shop'", "DELETE FROM shop_identity"]) {
      await expect(client.query(act)).rejects.toThrow(/permission denied/);
    }
  });
});
