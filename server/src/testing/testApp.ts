import { randomUUID } from "node:crypto";
import { type BenchLine, type BenchPage, clockHeaders, type Realm } from "@pale-cap/contract";
import { boardInsert, netValues, partValues, positionValues, readingValues } from "@pale-cap/core/testing";
import express, { type Express } from "express";
import pg from "pg";
import { pino } from "pino";
import request, { type Agent } from "supertest";
import { createApp } from "../app";
import type { AppContext } from "../appContext";
import { type Database, openDatabase } from "../database/database";
import { migrate } from "../database/migrate";
import { noCaller, type Scope } from "../database/scope";
import type { HeavyWork } from "../heavy/heavyWork";
import { localHeavyWork } from "../heavy/localHeavyWork";
import { EventStreams } from "../http/eventStream";
import type { Limits } from "../http/limits";
import { Turns } from "../http/turns";
import { UnderWay } from "../http/underWay";
import { InstrumentHub } from "../instruments/instrumentHub";
import { everyLine } from "../instruments/lineLeases";
import { noChanges } from "../live/changes";
import { PracticeBenches } from "../practice/practiceBenches";
import { RunKeeper } from "../runs/runKeeper";

export interface TestApp {
  readonly app: Express;
  readonly context: AppContext;
  /** As the application connects: with its own role's rights. */
  readonly database: Database;
  readonly heavy: HeavyWork;
  readonly instruments: InstrumentHub;
  readonly runs: RunKeeper;
  readonly urls: { readonly app: string; readonly owner: string };
  /** Reads or writes beside the application, in one transaction. */
  inScope<T>(work: (scope: Scope) => Promise<T>): Promise<T>;
  /** Rows of a table by its name in the database. */
  count(table: string): Promise<number>;
  /** The clock of the application; tests move it. */
  setNow(moment: Date): void;
  now(): number;
  close(): Promise<void>;
}

/** Nothing of a test talks to a simulated bench unless it sets one up. */
const unusedPort = 1;

/** A test waits for nothing longer than it must. */
const runTimes = {
  ...{ retryMilliseconds: 40, offMilliseconds: 900, emptyMilliseconds: 900 },
  ...{ startMilliseconds: 12_000, reachMilliseconds: 6000, flushMilliseconds: 200, unstoredMilliseconds: 1500 },
};

const template = "pale_cap_template";

/** The application on a database of its own, cloned from a migrated template on the test run's cluster. */
export async function openTestApp(
  { poolSize, ...more }: Partial<AppContext> & { readonly limits?: Limits; readonly poolSize?: number } = {},
  realm: Realm = "shop",
  benchPort = unusedPort,
  clone?: TestApp["urls"],
): Promise<TestApp> {
  const urls = clone ?? (await cloneTemplate());
  const database = openDatabase(urls.app, realm, poolSize);
  let now = new Date("2026-11-23T12:00:00Z");
  const times = {
    pollMilliseconds: 15,
    // A bound for what hangs: a busy machine answers late.
    patienceMilliseconds: 1200,
    retryMilliseconds: 30,
    longestWaitMilliseconds: 100,
  };
  const instruments = new InstrumentHub(benchPort, () => now, times);
  const heavy = localHeavyWork(database, () => now);
  const turns = new Turns();
  const logger = pino({ level: "silent" });
  const runs = new RunKeeper({ database, instruments, turns, heavy, logger, now: () => now }, everyLine, runTimes);
  const context: AppContext = {
    ...{ database, instruments, runs, practice: new PracticeBenches(benchPort), heavy, turns, logger },
    now: () => now,
    backupFolder: null,
    openWorld: null,
    sessions: null,
    changes: noChanges,
    streams: new EventStreams(),
    underWay: new UnderWay(),
    migrationsPending: async () => false,
    ...more,
  };
  const app = createApp({ ...context, limits: more.limits });
  // Every request of a test comes from one page, whose clock goes with the server's, unless it says otherwise.
  const page = express();
  page.use((incoming, _, next) => {
    incoming.headers[clockHeaders.clockId] ??= testClock;
    incoming.headers[clockHeaders.sentAt] ??= String(now.getTime());
    next();
  });
  page.use(app);
  const inScope = <T>(work: (scope: Scope) => Promise<T>) => database.write(now, noCaller, work);
  return {
    app: page,
    context,
    database,
    heavy,
    instruments,
    runs,
    urls,
    inScope,
    count: (table) =>
      inScope(async ({ sql }) => (await sql<{ n: number }>(`SELECT count(*)::int AS n FROM ${table}`))[0]?.n ?? 0),
    now: () => now.getTime(),
    setNow: (moment) => {
      now = moment;
    },
    close: async () => {
      await runs.close();
      instruments.close();
      await heavy.close();
      await database.close();
      await dropDatabase(urls);
    },
  };
}

/** Addresses of the run's cluster by role, without a database name. */
export function testCluster() {
  const { TEST_POSTGRES_ADDRESS: superuser, TEST_POSTGRES_OWNER: owner, TEST_POSTGRES_APP: app } = process.env;
  if (!superuser || !owner || !app) throw new Error("API tests need a cluster: run them with `npm run test:api`.");
  return { superuser, owner, app };
}

/** A migrated database of its own; its addresses for the application and for the owner. */
export async function cloneTemplate(): Promise<{ readonly app: string; readonly owner: string }> {
  const { superuser, owner, app } = testCluster();
  const name = `test_${randomUUID().replaceAll("-", "")}`;
  await onPostgres(superuser, async (client) => {
    const found = await client.query("SELECT 1 FROM pg_database WHERE datname = $1", [template]);
    if (found.rowCount === 0) {
      await client.query(`CREATE DATABASE ${template} OWNER pale_cap_owner`);
      await migrate(`${owner}${template}`, { applicationRole: "pale_cap_app" });
    }
    await client.query(`CREATE DATABASE ${name} TEMPLATE ${template} OWNER pale_cap_owner`);
  });
  return { app: `${app}${name}`, owner: `${owner}${name}` };
}

export async function dropDatabase({ app }: { readonly app: string }): Promise<void> {
  const name = new URL(app).pathname.slice(1);
  await onPostgres(testCluster().superuser, (client) => client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`));
}

export async function onPostgres<T>(address: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({
    connectionString: new URL(address).pathname === "/" ? `${address}postgres` : address,
  });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** The clock of the page that a test stands for; without its headers nobody knows how it stands to the server's. */
export const testClock = "019a0000-0000-7000-8000-00000000c10c";

export const newId = (): string => randomUUID();

/** An application as everyone, or a browser that is signed in. */
export type Sender = Express | Agent;
export const sender = (app: Sender) => ("jar" in app ? (app as Agent) : request(app));

/** A job with nothing but a kind and a fault. */
export async function makeJob(app: Sender, more: object = {}): Promise<string> {
  const id = newId();
  const body = {
    id,
    deviceKind: "monitor",
    deviceMaker: "Brambix",
    deviceModel: null,
    complaint: "dead",
    personId: null,
    ...more,
  };
  await sender(app).post("/api/jobs").send(body).expect(201);
  return id;
}

export interface MadePart {
  readonly netId: string;
  readonly positionId: string;
  readonly partId: string;
}

/** C1 on a 12 V net of a job. */
export async function makePart(app: Sender, jobId: string, designator = "C1"): Promise<MadePart> {
  const made = { netId: newId(), positionId: newId(), partId: newId() };
  const changes = [
    boardInsert("net", made.netId, netValues),
    boardInsert("position", made.positionId, { ...positionValues, designator, netId: made.netId }),
    boardInsert("fittedPart", made.partId, { ...partValues, positionId: made.positionId }),
  ];
  await sender(app).post(`/api/jobs/${jobId}/board-edits`).send({ id: newId(), changes }).expect(200);
  return made;
}

/** An ESR reading of 40 milliohms on a made part. */
export function readingBody(part: MadePart, more: object = {}) {
  return {
    ...readingValues,
    id: newId(),
    targetId: part.positionId,
    fittedPartId: part.partId,
    measuredAt: "2026-11-23T11:59:00.000Z",
    clockId: testClock,
    ...more,
  };
}

/** The lines of the bench after everything that was marked is folded. */
export async function benchLines(test: TestApp, query = ""): Promise<readonly BenchLine[]> {
  test.heavy.poke();
  await test.heavy.settled();
  return ((await request(test.app).get(`/api/bench${query}`).expect(200)).body as BenchPage).lines;
}
