import { randomUUID } from "node:crypto";
import type { Express } from "express";
import pg from "pg";
import { pino } from "pino";
import request from "supertest";
import { createApp } from "../app";
import { type Database, openDatabase } from "../database/database";
import { InstrumentHub } from "../instruments/instrumentHub";

export interface TestApp {
  readonly app: Express;
  readonly database: Database;
  readonly instruments: InstrumentHub;
  /** The clock of the application; tests move it. */
  setNow(moment: Date): void;
  close(): Promise<void>;
}

/** Nothing of a test talks to a simulated bench unless it sets one up. */
const unusedPort = 1;

const template = "pale_cap_template";

/** The application on a database of its own, cloned from a migrated template on the test run's cluster. */
export async function openTestApp(): Promise<TestApp> {
  const address = process.env.TEST_POSTGRES_ADDRESS;
  if (!address) throw new Error("API tests need a cluster: run them with `npm run test:api`.");
  const name = `test_${randomUUID().replaceAll("-", "")}`;
  await onPostgres(address, async (client) => {
    const found = await client.query("SELECT 1 FROM pg_database WHERE datname = $1", [template]);
    if (found.rowCount === 0) await makeTemplate(client, address);
    await client.query(`CREATE DATABASE ${name} TEMPLATE ${template}`);
  });
  const database = openDatabase(`${address}${name}`);
  let now = new Date("2026-11-23T12:00:00Z");
  const times = {
    pollMilliseconds: 15,
    patienceMilliseconds: 300,
    retryMilliseconds: 30,
    longestWaitMilliseconds: 100,
  };
  const instruments = new InstrumentHub(unusedPort, () => now, times);
  const app = createApp({ database, instruments, logger: pino({ level: "silent" }), now: () => now });
  return {
    app,
    database,
    instruments,
    setNow: (moment) => {
      now = moment;
    },
    close: async () => {
      instruments.close();
      await database.close();
      await onPostgres(address, (client) => client.query(`DROP DATABASE ${name} WITH (FORCE)`));
    },
  };
}

async function makeTemplate(client: pg.Client, address: string): Promise<void> {
  await client.query(`CREATE DATABASE ${template}`);
  const database = openDatabase(`${address}${template}`);
  await database.migrate();
  await database.close();
}

async function onPostgres<T>(address: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: `${address}postgres` });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

export const newId = (): string => randomUUID();

/** A job with nothing but a kind and a fault. */
export async function makeJob(app: Express, more: object = {}): Promise<string> {
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
  await request(app).post("/api/jobs").send(body).expect(201);
  return id;
}

export interface MadePart {
  readonly netId: string;
  readonly positionId: string;
  readonly partId: string;
}

export const netValues = {
  name: "12 V",
  section: "output",
  nominalVolts: 12,
  fullLoadAmps: 4,
  toleranceRatio: null,
  rippleLimitVolts: null,
  network: null,
  converter: null,
};

export const positionValues = {
  designator: "C1",
  kind: "electrolytic",
  netId: null as string | null,
  xMetres: 0.02,
  yMetres: 0.03,
  outlineWidthMetres: null,
  outlineDepthMetres: null,
  pitchMetres: 0.005,
  polarityMark: "dark_half",
  boardNegativeDegrees: 90,
  fixing: null,
  heatSource: null,
  outlineHeightMetres: null,
  markedOhms: null,
};

export const partValues = {
  capacitanceFarads: 1e-3,
  ratedVolts: 16,
  temperatureClassCelsius: 105,
  capacitorClass: "lowz",
  diameterMetres: 0.01,
  heightMetres: 0.02,
  stripeDegrees: 90,
  datasheetEsrOhms: null,
  toleranceRatio: null,
  series: null,
};

/** C1 on a 12 V net of a job. */
export async function makePart(app: Express, jobId: string, designator = "C1"): Promise<MadePart> {
  const made = { netId: newId(), positionId: newId(), partId: newId() };
  const insert = (table: string, id: string, values: object) => ({
    table,
    operation: "insert",
    id,
    version: null,
    values,
  });
  const changes = [
    insert("net", made.netId, netValues),
    insert("position", made.positionId, { ...positionValues, designator, netId: made.netId }),
    insert("fittedPart", made.partId, { ...partValues, positionId: made.positionId }),
  ];
  await request(app).post(`/api/jobs/${jobId}/board-edits`).send({ id: newId(), changes }).expect(200);
  return made;
}

/** An ESR reading of 40 milliohms on a made part. */
export function readingBody(part: MadePart, more: object = {}) {
  return {
    id: newId(),
    targetKind: "part",
    targetId: part.positionId,
    fittedPartId: part.partId,
    quantity: "esr",
    value: 0.04,
    coarseCode: null,
    terminals: null,
    uncertainty: null,
    circuitState: "lead_lifted",
    frequencyHertz: 100e3,
    temperatureCelsius: null,
    isPowered: false,
    loadAmps: null,
    rig: {
      isIsolationTransformer: false,
      isSeriesLamp: false,
      isElectronicLimiter: false,
      areLeadsZeroed: true,
      measuredAt: null,
    },
    rawText: "40m",
    instrument: null,
    isWithdrawn: false,
    supersedesId: null as string | null,
    measuredAt: "2026-11-23T11:59:00.000Z",
    personId: null,
    ...more,
  };
}
