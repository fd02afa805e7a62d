import { randomUUID } from "node:crypto";
import { Sequelize } from "sequelize";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { cloneTemplate, dropDatabase, onPostgres, openTestApp, type TestApp, testCluster } from "../testing/testApp";
import { type Database, openDatabase } from "./database";
import { MigrationRefused, migrate, migrationsOf, versionFault } from "./migrate";
import { appendOnlyTables } from "./rights";
import { noCaller } from "./scope";

const rights = { applicationRole: "pale_cap_app" };

/** Every step that this program knows. */
async function knownMigrations(): Promise<readonly string[]> {
  const sequelize = new Sequelize("postgres://nobody@127.0.0.1:1/none", { dialect: "postgres" });
  return (await migrationsOf(sequelize).migrations({})).map((one) => one.name);
}

/** An empty database of the owner's. */
async function emptyDatabase(): Promise<string> {
  const { superuser, owner } = testCluster();
  const name = `empty_${randomUUID().replaceAll("-", "")}`;
  await onPostgres(superuser, (client) => client.query(`CREATE DATABASE ${name} OWNER pale_cap_owner`));
  return `${owner}${name}`;
}

describe("migrations", () => {
  it("are one, when two starts meet", async () => {
    const owner = await emptyDatabase();
    const done = await Promise.all([migrate(owner, rights), migrate(owner, rights)]);
    expect(done.map((names) => names.length).sort((a, b) => a - b)).toEqual([0, (await knownMigrations()).length]);
    await dropDatabase({ app: owner });
  });

  it("refuse a database that a newer version wrote, and change nothing", async () => {
    const urls = await cloneTemplate();
    await onPostgres(urls.owner, (client) => client.query("INSERT INTO migrations VALUES ('2031-01-01-later')"));
    const refused = migrate(urls.owner, rights);
    await expect(refused).rejects.toBeInstanceOf(MigrationRefused);
    await expect(refused).rejects.toThrow(/2031-01-01-later/);
    await dropDatabase(urls);
  });

  it("ask before they change anything, and leave a database alone that is not let through", async () => {
    const owner = await emptyDatabase();
    const known = (await knownMigrations()).length;
    const before = async (pending: readonly string[], isEmpty: boolean) => {
      expect([pending.length, isEmpty]).toEqual([known, true]);
      throw new Error("no backup");
    };
    await expect(migrate(owner, { ...rights, before })).rejects.toThrow("no backup");
    const tables = await onPostgres(owner, (client) =>
      client.query("SELECT tablename FROM pg_tables WHERE schemaname = 'public'"),
    );
    expect(tables.rows).toEqual([{ tablename: "migrations" }]);
    await dropDatabase({ app: owner });
  });

  it("number the rows of an older shop by receipt, else by their own moment, else by id", async () => {
    const owner = await emptyDatabase();
    const old = (await knownMigrations()).filter((name) => name < "2026-11-28");
    await onPostgres(owner, async (client) => {
      await client.query("CREATE TABLE migrations (name varchar(255) PRIMARY KEY)");
      for (const name of old) {
        const { up } = await import(`./migrations/${name}.ts`);
        const query = (text: string) => client.query(text);
        await up({ context: { sequelize: { query, transaction: (work: (held: null) => unknown) => work(null) } } });
        await client.query("INSERT INTO migrations VALUES ($1)", [name]);
      }
      const job = "00000000-0000-4000-8000-000000000001";
      await client.query(
        `INSERT INTO jobs (id, device_kind, created_at, handed_over_at, hand_over_note)
         VALUES ($1, 'monitor', now(), '2026-01-02', 'as it was')`,
        [job],
      );
      const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
      const reading = (n: number, at: string, received: string) =>
        client.query(
          `INSERT INTO readings (id, job_id, target_kind, target_id, quantity, is_powered, rig, is_withdrawn, measured_at, received_at)
           VALUES ($1, $2, 'unit', $2, 'power', false, '{}', false, $3, $4)`,
          [id(n), job, at, received],
        );
      const event = (n: number, at: string) =>
        client.query(
          "INSERT INTO charge_events (id, job_id, kind, is_meter_proved, at) VALUES ($1, $2, 'mains_connected', false, $3)",
          [id(n), job, at],
        );
      // A clock a year ahead measured the first reading; the server received it before the others.
      await reading(2, "2027-01-01T10:00Z", "2026-01-01T10:00Z");
      await event(5, "2026-01-01T10:01Z");
      await event(4, "2026-01-01T10:01Z");
      await reading(3, "2020-01-01T10:00Z", "2026-01-01T10:02Z");
    });
    await migrate(owner, rights);
    const rows = await onPostgres(owner, (client) =>
      client.query(
        `SELECT right(id::text, 1) AS id, sequence FROM
         (SELECT id, sequence FROM readings UNION ALL SELECT id, sequence FROM charge_events) facts ORDER BY sequence`,
      ),
    );
    expect(rows.rows.map((row) => row.id).join("")).toBe("2453");
    const more = await onPostgres(owner, (client) =>
      client.query(
        "SELECT nextval('fact_sequence') AS next, (SELECT words FROM typed_words WHERE field = 'note') AS note",
      ),
    );
    expect(Number(more.rows[0].next)).toBeGreaterThan(Number(rows.rows.at(-1)?.sequence));
    expect(more.rows[0].note).toBe("as it was");
    await dropDatabase({ app: owner });
  });
});

describe("the application's role", () => {
  let urls: Awaited<ReturnType<typeof cloneTemplate>>;
  beforeAll(async () => {
    urls = await cloneTemplate();
  });
  afterAll(() => dropDatabase(urls));

  it.each(appendOnlyTables)("may add to %s, and neither change nor delete there", async (table) => {
    await onPostgres(urls.app, async (client) => {
      const first = await client.query(`SELECT * FROM ${table} LIMIT 0`);
      const column = first.fields[0]?.name;
      await expect(client.query(`UPDATE ${table} SET ${column} = ${column}`)).rejects.toThrow(/permission denied/);
      await expect(client.query(`DELETE FROM ${table}`)).rejects.toThrow(/permission denied/);
      await expect(client.query(`TRUNCATE ${table}`)).rejects.toThrow(/permission denied/);
    });
  });

  it("has the right to add, by default, to a table that comes later; and owns nothing", async () => {
    await onPostgres(urls.owner, (client) => client.query("CREATE TABLE later (id integer)"));
    await onPostgres(urls.app, async (client) => {
      await client.query("INSERT INTO later VALUES (1)");
      await expect(client.query("UPDATE later SET id = 2")).rejects.toThrow(/permission denied/);
      await expect(client.query("CREATE TABLE own (id integer)")).rejects.toThrow(/permission denied/);
    });
  });
});

describe("a transaction", () => {
  let test: TestApp;
  let database: Database;
  beforeAll(async () => {
    test = await openTestApp();
    database = openDatabase(test.urls.app, "shop", 2);
    await test.inScope(async ({ rows }) => {
      await rows.people.insertAll([
        { id: "00000000-0000-4000-8000-00000000000a", name: "a" },
        { id: "00000000-0000-4000-8000-00000000000b", name: "b" },
      ]);
    });
  });
  afterAll(async () => {
    await database.close();
    await test.close();
  });

  it("that runs into a deadlock is done again, and both come through", async () => {
    const [a, b] = ["00000000-0000-4000-8000-00000000000a", "00000000-0000-4000-8000-00000000000b"];
    let [tries, held] = [0, 0];
    let bothHold = () => {};
    const untilBothHold = new Promise<void>((resolve) => {
      bothHold = resolve;
    });
    const both = (first: string, second: string) =>
      database.write(new Date(), noCaller, async ({ sql }) => {
        tries += 1;
        await sql("UPDATE people SET name = name || '.' WHERE id = $1 RETURNING id", [first]);
        if (++held === 2) bothHold();
        await untilBothHold;
        await sql("UPDATE people SET name = name || '.' WHERE id = $1 RETURNING id", [second]);
      });
    await Promise.all([both(a, b), both(b, a)]);
    expect(tries).toBeGreaterThan(2);
    const people = await test.inScope(({ rows }) => rows.people.all({}, [["name", "ASC"]]));
    expect(people.map((one) => one.name)).toEqual(["a..", "b.."]);
  });

  it("that reads cannot write", async () => {
    const write = database.read(new Date(), ({ rows }) => rows.people.insert({ id: randomUUID(), name: "c" }));
    await expect(write).rejects.toThrow(/read-only/);
  });

  it("is bounded in its tries", async () => {
    let tries = 0;
    const always = database.write(new Date(), noCaller, async ({ sql }) => {
      tries += 1;
      await sql("DO $$ BEGIN RAISE EXCEPTION 'again' USING ERRCODE = '40001'; END $$");
    });
    await expect(always).rejects.toThrow("again");
    expect(tries).toBe(6);
  });
});

it("an older PostgreSQL is refused by name, one of the oldest that will do is not", () => {
  expect(versionFault(140_011)).toContain("PostgreSQL 14");
  expect([versionFault(150_000), versionFault(180_002)]).toEqual([null, null]);
});
