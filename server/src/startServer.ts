import { randomUUID } from "node:crypto";
import { createServer as createPlainServer } from "node:http";
import { createServer as createTlsServer } from "node:https";
import { fileURLToPath } from "node:url";
import { coreVersion } from "@pale-cap/core";
import { pino } from "pino";
import { createApp } from "./app";
import type { AppContext } from "./appContext";
import { type Database, openDatabase } from "./database/database";
import { loadDemoShop } from "./database/demo/loadDemoShop";
import { loadPast } from "./database/demo/past/loadPast";
import { applicationRoleOf, hasPendingMigrations, type MigrationOptions, migrate } from "./database/migrate";
import { noCaller } from "./database/scope";
import { type ShopRealm, settleRealm } from "./database/settleRealm";
import { threadedHeavyWork } from "./heavy/threadedHeavyWork";
import { EventStreams } from "./http/eventStream";
import { logSerializers } from "./http/logging";
import { boundSlowClients, checkingOptions } from "./http/slowClients";
import { Turns } from "./http/turns";
import { UnderWay } from "./http/underWay";
import { InstrumentHub } from "./instruments/instrumentHub";
import { StoredLeases } from "./instruments/lineLeases";
import { setUpInstruments } from "./instruments/setUpInstruments";
import { openChanges } from "./live/changes";
import { openMetrics } from "./metrics";
import { hasLead, makeLink } from "./people/oneTimeLinks";
import { openSessions, type Sessions } from "./people/sessions";
import { PracticeBenches } from "./practice/practiceBenches";
import { repeatErasures } from "./records/erasures";
import { RunKeeper } from "./runs/runKeeper";
import { type Serving, StartRefused, servingFrom } from "./serving";

export interface RunningServer {
  readonly address: string;
  close(): Promise<void>;
}

export interface ServerEnvironment {
  /** The application's own role. */
  readonly databaseUrl: string;
  /** The owner of database and tables: migrations, the demo shop, what is heard of changes. A direct connection. */
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
  /** How it is reached and by whom; what the environment says, where nothing else is given. */
  readonly serving?: Serving;
  /** Ports of a page in front of this server, as in development. */
  readonly frontPorts?: readonly number[];
  /** Says something to the person at the console. */
  readonly say?: (words: string) => void;
  readonly beforeMigration?: MigrationOptions["before"];
}

/** A stop waits so long for what is under way. */
const drainMilliseconds = 10_000;

/**
 * Migrates, settles whether this is a shop or the demo, and listens: on loopback alone, unless it is told otherwise and there are
 * accounts.
 *
 * @throws {StartRefused} where it would be open to whoever passes by
 */
export async function startServer(environment: ServerEnvironment): Promise<RunningServer> {
  const { databaseUrl, ownerUrl, backupFolder, beforeMigration } = environment;
  const serving = environment.serving ?? servingFrom(process.env, environment.frontPorts);
  const isShop = serving.mode === "shop";
  const level = process.env.LOG_LEVEL ?? (isShop ? "info" : "warn");
  const logger = pino({ level, serializers: logSerializers });
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
  let sessions: Sessions | null = null;
  const webFolder = fileURLToPath(new URL("../../web/dist", import.meta.url));
  try {
    const repeated = await repeatErasures(database, backupFolder, now());
    if (repeated > 0) logger.info({ customers: repeated }, "names that were erased since this backup are erased again");
    await markFoldedByOthers(database, now());
    await setUpInstruments({ database, instruments, now });
    if (isShop) sessions = await openSessions({ databaseUrl, isSecure: serving.isSecure });
    if (!serving.isLoopback && !(await database.read(now(), hasLead))) throw new StartRefused(noAccountsYet);
  } catch (error) {
    instruments.close();
    await sessions?.close();
    await leases.close();
    await Promise.all([heavy.close(), database.close()]);
    throw error;
  }
  heavy.poke();
  const turns = new Turns();
  const runs = new RunKeeper({ database, instruments, turns, heavy, logger, now }, leases);
  runs.watch();
  const changes = openChanges(ownerUrl);
  const streams = new EventStreams();
  const underWay = new UnderWay();
  const metrics = openMetrics({ streams: () => streams.count, waiting: () => underWay.count });
  const practice = new PracticeBenches(environment.benchPort);
  const app = createApp({
    ...{
      database,
      instruments,
      runs,
      practice,
      heavy,
      turns,
      changes,
      streams,
      underWay,
      sessions,
      logger,
      now,
      metrics,
    },
    ...{
      backupFolder,
      webFolder,
      servedAt: serving.servedAt,
      trustedProxies: serving.trustedProxies,
      logsRequests: isShop,
    },
    // Beyond this machine the other world would be open before anybody has an account in it.
    openWorld: serving.isLoopback ? (environment.openWorld ?? null) : null,
    migrationsPending: onceFalse(() => hasPendingMigrations(database, now())),
  });
  const server = serving.tls
    ? createTlsServer({ ...serving.tls, ...checkingOptions }, app)
    : createPlainServer(checkingOptions, app);
  boundSlowClients(server);
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(environment.port, serving.listen, () => resolve());
  });
  const metricsServer = serving.metricsPort === null ? null : await metrics.listen(serving.metricsPort);
  const taken = server.address();
  const port = typeof taken === "object" && taken ? taken.port : environment.port;
  const scheme = serving.tls ? "https" : "http";
  const address = `${scheme}://${serving.isLoopback ? "127.0.0.1" : (serving.servedAt.hosts.at(-1) ?? serving.listen)}:${port}`;
  if (isShop) await offerFirstLead(database, now(), address, environment.say ?? console.log);
  return {
    address,
    close: async () => {
      // No new work; pages come back to whoever answers then, what is under way is finished.
      const drained = underWay.drain(drainMilliseconds);
      streams.close();
      const closed = new Promise<void>((resolve) => server.close(() => resolve()));
      server.closeIdleConnections();
      // What runs is switched off, the mains first, while the lines still stand.
      await runs.close();
      await drained;
      instruments.close();
      await leases.close();
      server.closeAllConnections();
      await closed;
      metricsServer?.closeAllConnections();
      metricsServer?.close();
      await changes.close();
      await sessions?.close();
      await heavy.close();
      await database.close();
    },
  };
}

/** A step that was done is never taken back: what is not pending any more is not asked for again. */
function onceFalse(ask: () => Promise<boolean>): () => Promise<boolean> {
  let isFalse = false;
  return async () => {
    if (!isFalse) isFalse = !(await ask());
    return !isFalse;
  };
}

const noAccountsYet =
  "This shop has no accounts yet, so it listens to nobody beyond this machine. Start it once with PALE_CAP_MODE=shop alone, open the link that is shown, and make the account of whoever leads the shop.";

/** The first account is made by whoever reads the console. */
async function offerFirstLead(
  database: Database,
  now: Date,
  address: string,
  say: (words: string) => void,
): Promise<void> {
  if (await database.read(now, hasLead)) return;
  const link = await database.write(now, noCaller, (scope) => makeLink(scope, "first_lead", null));
  say(`Nobody has an account yet. Whoever leads the shop opens this once, within a day: ${address}${link.path}`);
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
