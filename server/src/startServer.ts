import { randomUUID } from "node:crypto";
import { fileURLToPath } from "node:url";
import { coreVersion } from "@pale-cap/core";
import { pino } from "pino";
import { createApp } from "./app";
import type { AppContext } from "./appContext";
import { type Database, openDatabase } from "./database/database";
import { loadDemoShop } from "./database/demo/loadDemoShop";
import { loadPast } from "./database/demo/past/loadPast";
import { applicationRoleOf, type MigrationOptions, migrate } from "./database/migrate";
import { noCaller } from "./database/scope";
import { type ShopRealm, settleRealm } from "./database/settleRealm";
import { threadedHeavyWork } from "./heavy/threadedHeavyWork";
import { logSerializers } from "./http/logging";
import { loopbackNames } from "./http/origins";
import { Turns } from "./http/turns";
import { InstrumentHub } from "./instruments/instrumentHub";
import { StoredLeases } from "./instruments/lineLeases";
import { setUpInstruments } from "./instruments/setUpInstruments";
import { PracticeBenches } from "./practice/practiceBenches";
import { repeatErasures } from "./records/erasures";
import { RunKeeper } from "./runs/runKeeper";

export interface RunningServer {
  readonly address: string;
  close(): Promise<void>;
}

export interface ServerEnvironment {
  /** The application's own role. */
  readonly databaseUrl: string;
  /** The owner of database and tables: migrations, the demo shop. A direct connection. */
  readonly ownerUrl: string;
  readonly port: number;
  readonly withDemo: boolean;
  /** Takes a backup of this database; null where it is somebody else's. */
  readonly backUp?: (reason: string) => Promise<void>;
  /** Opens the shop or the demo instead of what is open; null where only one address is known. */
  readonly openWorld?: AppContext["openWorld"];
  /** Where the simulated bench listens. */
  readonly benchPort: number;
  /** Where this shop's backups lie; null where the database is somebody else's. */
  readonly backupFolder: string | null;
  /** Ports of a page in front of this server, as in development. */
  readonly frontPorts?: readonly number[];
  readonly beforeMigration?: MigrationOptions["before"];
}

/** Migrates, settles whether this is a shop or the demo, and listens on loopback. */
export async function startServer(environment: ServerEnvironment): Promise<RunningServer> {
  const { databaseUrl, ownerUrl, backupFolder, beforeMigration } = environment;
  const logger = pino({ level: process.env.LOG_LEVEL ?? "warn", serializers: logSerializers });
  const now = () => new Date();
  const applicationRole = applicationRoleOf(databaseUrl, ownerUrl);
  await migrate(ownerUrl, { applicationRole, before: beforeMigration });
  const backUp = environment.backUp ?? (async () => undefined);
  const realm = await settleRealm(ownerUrl, { withDemo: environment.withDemo, backUp });
  if (realm === "demo") {
    await withDatabase(ownerUrl, realm, (owner) => loadDemoShop(owner, now()));
    await loadPast(ownerUrl, now());
  }
  const database = openDatabase(databaseUrl, realm);
  const heavy = threadedHeavyWork(databaseUrl, realm, logger);
  const leases = new StoredLeases(database, randomUUID());
  const instruments = new InstrumentHub(environment.benchPort, now, undefined, leases);
  const webFolder = fileURLToPath(new URL("../../web/dist", import.meta.url));
  try {
    const repeated = await repeatErasures(database, backupFolder, now());
    if (repeated > 0) logger.info({ customers: repeated }, "names that were erased since this backup are erased again");
    await markFoldedByOthers(database, now());
    await setUpInstruments({ database, instruments, now });
  } catch (error) {
    instruments.close();
    await leases.close();
    await Promise.all([heavy.close(), database.close()]);
    throw error;
  }
  heavy.poke();
  const servedAt = { hosts: loopbackNames, ports: environment.frontPorts ?? [] };
  const turns = new Turns();
  const runs = new RunKeeper({ database, instruments, turns, heavy, logger, now }, leases);
  runs.watch();
  const openWorld = environment.openWorld ?? null;
  const app = createApp({
    ...{
      database,
      instruments,
      runs,
      practice: new PracticeBenches(environment.benchPort),
      heavy,
      turns,
      logger,
      now,
      backupFolder,
      openWorld,
      webFolder,
      servedAt,
    },
  });
  const server = await new Promise<ReturnType<typeof app.listen>>((resolve, reject) => {
    const listening = app.listen(environment.port, "127.0.0.1", (error?: Error) =>
      error ? reject(error) : resolve(listening),
    );
  });
  const address = server.address();
  const port = typeof address === "object" && address ? address.port : environment.port;
  return {
    address: `http://127.0.0.1:${port}`,
    close: async () => {
      // What runs is switched off, the mains first, while the lines still stand.
      await runs.close();
      instruments.close();
      await leases.close();
      const closed = new Promise<void>((resolve) => server.close(() => resolve()));
      server.closeAllConnections();
      await closed;
      await heavy.close();
      await database.close();
    },
  };
}

async function withDatabase<T>(url: string, realm: ShopRealm, work: (database: Database) => Promise<T>): Promise<T> {
  const database = openDatabase(url, realm, 1);
  try {
    return await work(database);
  } finally {
    await database.close();
  }
}

/** What another core folded is folded anew; frozen judgements are left as they are. */
async function markFoldedByOthers(database: Database, now: Date): Promise<void> {
  await database.write(now, noCaller, (scope) =>
    scope.sql(
      `UPDATE job_summaries SET is_stale = true, marked = marked + 1
       WHERE folded_by IS DISTINCT FROM $1 AND NOT is_stale RETURNING job_id`,
      [coreVersion],
    ),
  );
}
