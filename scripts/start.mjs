// npm start: everything from an empty machine to a running Pale Cap. npm run dev: the same with hot reload.
import { spawn } from "node:child_process";
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import { join } from "node:path";
import { ensureClientBuild } from "./clientBuild.mjs";
import { ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";
import { checkout } from "./paths.mjs";
import { isAlive, stopPostgres } from "./postgres/cluster.mjs";
import { openOrphan, openShop, watchCluster } from "./postgres/shop.mjs";
import { ensureServerBuild } from "./serverBuild.mjs";

const isDev = process.argv.includes("--dev");
const port = portFromEnvironment();
const withDemo = process.env.PALE_CAP_DEMO !== "none";
/** What has to be undone at the end, last first. */
const undo = [];
let isStopping = false;

for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => void stop(0));
watchLauncher();
try {
  await refuseTakenPort();
  await ensurePackages();
  const database = process.env.DATABASE_URL ? foreignDatabase() : await ownDatabase();
  const benchPort = await startBench();
  const address = isDev ? await startDev(database, benchPort) : await startBuilt(database, benchPort);
  console.log(`Pale Cap is at ${address} (Ctrl-C stops it)`);
} catch (error) {
  if (isStopping) process.exitCode = 0;
  else {
    console.error(error instanceof NeedsPerson ? error.message : explain(error));
    await stop(1);
  }
}

function portFromEnvironment() {
  const typed = process.env.PORT ?? "4780";
  const value = Number(typed);
  if (Number.isInteger(value) && value > 0 && value < 65536) return value;
  console.error(`PORT must be a number from 1 to 65535, not "${typed}".`);
  process.exit(1);
}

async function refuseTakenPort() {
  const isTaken = await new Promise((resolve) => {
    const probe = connect(port, "127.0.0.1", () => resolve(true)).on("error", () => resolve(false));
    setTimeout(() => resolve(true), 2000).unref();
    probe.on("connect", () => probe.end());
  });
  if (!isTaken) return;
  const isOurs = await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(1500) })
    .then((answer) => answer.ok)
    .catch(() => false);
  throw new NeedsPerson(
    isOurs
      ? `Pale Cap is already running at http://127.0.0.1:${port}.`
      : `Port ${port} is taken by another program. Choose another one: PORT=4781 npm start`,
  );
}

/** Somebody else's database: the application's address, and the owner's for migrations, locks and listening. */
function foreignDatabase() {
  const { DATABASE_URL: databaseUrl, DATABASE_OWNER_URL: ownerUrl } = process.env;
  if (!ownerUrl) {
    console.log(
      "DATABASE_OWNER_URL is not set: migrations use DATABASE_URL too, and the application may change what it should only add to.",
    );
  }
  return { databaseUrl, ownerUrl: ownerUrl || databaseUrl, backupFolder: null, withDemo };
}

/** The project's own cluster; it stays up while another start of this checkout still uses it. */
async function ownDatabase() {
  ensurePostgres();
  const orphan = /^[0-9a-f]{12}$/.exec(process.argv[process.argv.indexOf("--open") + 1] ?? "");
  if (process.argv.includes("--open")) {
    if (!orphan) throw new NeedsPerson("--open needs the twelve characters that were listed for the shop.");
    openOrphan(orphan[0]);
  }
  const shop = await openShop();
  // In the shop's own folder: cleaning the checkout must not make a start forget another.
  const marks = join(shop.folder, "starts");
  mkdirSync(marks, { recursive: true });
  for (const pid of readdirSync(marks)) if (!isStart(Number(pid))) rmSync(join(marks, pid), { force: true });
  const mark = join(marks, String(process.pid));
  writeFileSync(mark, "");
  undo.push(() => {
    rmSync(mark, { force: true });
    if (readdirSync(marks).every((pid) => !isStart(Number(pid)))) stopPostgres(shop.cluster);
  });
  undo.push(watchCluster(shop, (words) => console.error(words)));
  return environmentOf(shop);
}

/** What the server is started with on one of the shop's databases. */
async function environmentOf(shop) {
  const { takeBackup } = await import("./postgres/backups.mjs");
  const { chooseWorld } = await import("./postgres/worlds.mjs");
  const { cluster, backups, urls, folder, name, clusterUrls } = shop;
  const backUp = (reason) => takeBackup({ cluster, backups, url: urls.superuser, reason }, console.log);
  return {
    databaseUrl: urls.app,
    ownerUrl: urls.owner,
    backupFolder: backups,
    withDemo: name.endsWith("_demo") || (!name.endsWith("_shop") && withDemo),
    backUp,
    // An empty database has nothing to keep.
    beforeMigration: (_pending, isEmpty) => (isEmpty ? undefined : backUp("before a new version's changes")),
    choose: (realm) => chooseWorld({ superuser: clusterUrls.superuser, folder, realm }),
  };
}

/** A recycled pid of some other program does not keep the cluster up. */
function isStart(pid) {
  try {
    return isAlive(pid) && readFileSync(`/proc/${pid}/cmdline`, "utf8").includes("start.mjs");
  } catch {
    return false;
  }
}

/** The simulated instruments as a process of their own; without them everything else still works. */
async function startBench() {
  const benchPort = Number(process.env.BENCH_PORT) || port + 10;
  const env = { ...process.env, BENCH_PORT: String(benchPort) };
  const stdio = ["ignore", "inherit", "inherit", "ipc"];
  const bench = spawn(process.execPath, ["--import", "tsx", "bench/src/main.ts"], { cwd: checkout, env, stdio });
  undo.push(
    () => new Promise((resolve) => (bench.exitCode === null ? bench.once("exit", resolve) && bench.kill() : resolve())),
  );
  const isReady = await new Promise((resolve) => {
    bench.once("message", () => resolve(true));
    bench.once("exit", () => resolve(false));
  });
  if (!isReady)
    console.error(
      `The simulated bench did not start: are the ports from ${benchPort} on free? BENCH_PORT sets others.`,
    );
  return benchPort;
}

async function startBuilt(database, benchPort) {
  await Promise.all([ensureClientBuild(), ensureServerBuild()]);
  process.setSourceMapsEnabled(true);
  const { startServer } = await import("../server/dist/startServer.mjs");
  let running = null;
  let opening = Promise.resolve();
  const open = async (environment) => {
    const openWorld = environment.choose && ((realm) => environment.choose(realm).then(openNext));
    running = await startServer({ ...environment, port, benchPort, openWorld });
  };
  // Asked for by a person: what is open is closed, and the other database takes its place at the same address.
  const openNext = () => {
    opening = opening.then(async () => {
      if (isStopping) return;
      await running.close();
      await open(await environmentOf(await openShop()));
      console.log("Another database is open now.");
    });
    opening.catch((error) => {
      console.error(explain(error));
      return stop(1);
    });
  };
  await open(database);
  undo.push(async () => {
    await opening.catch(() => undefined);
    await running.close();
  });
  return running.address;
}

async function startDev({ databaseUrl, ownerUrl, backupFolder, beforeMigration, withDemo: isDemoWanted }, benchPort) {
  const { register } = await import("tsx/esm/api");
  register();
  // Here and not in the process that is restarted on every change: a backup comes before it.
  const { applicationRoleOf, migrate } = await import("../server/src/database/migrate.ts");
  await migrate(ownerUrl, { applicationRole: applicationRoleOf(databaseUrl, ownerUrl), before: beforeMigration });
  const apiPort = port + 1;
  const env = {
    ...process.env,
    DATABASE_URL: databaseUrl,
    DATABASE_OWNER_URL: ownerUrl,
    PALE_CAP_DEMO: isDemoWanted ? "" : "none",
    ...(backupFolder ? { BACKUP_FOLDER: backupFolder } : {}),
    PORT: String(apiPort),
    FRONT_PORT: String(port),
    BENCH_PORT: String(benchPort),
  };
  const args = ["--watch", "--watch-preserve-output", "--import", "tsx", "server/src/main.ts"];
  const api = spawn(process.execPath, args, { cwd: checkout, env, stdio: "inherit" });
  undo.push(
    () => new Promise((resolve) => (api.exitCode === null ? api.once("exit", resolve) && api.kill() : resolve())),
  );
  const { createServer } = await import("vite");
  const vite = await createServer({
    root: join(checkout, "web"),
    server: { host: "127.0.0.1", port, strictPort: true, proxy: { "/api": `http://127.0.0.1:${apiPort}` } },
  });
  await vite.listen();
  undo.push(() => vite.close());
  return `http://127.0.0.1:${port}`;
}

/** When npm is killed outright, nobody would stop this process any more: it notices and stops itself. */
function watchLauncher() {
  if (!process.env.npm_lifecycle_event) return;
  const ancestors = () => {
    const parent = process.ppid;
    try {
      return [parent, Number(/\) \S (\d+)/.exec(readFileSync(`/proc/${parent}/stat`, "utf8"))?.[1])].join();
    } catch {
      return "gone";
    }
  };
  const first = ancestors();
  const [, grandparent] = first.split(",");
  // npm starts through a shell on some systems: then npm is the grandparent and must be watched too.
  const isShell = /^(ba|da)?sh$/.test(readFileSync(`/proc/${process.ppid}/comm`, "utf8").trim());
  setInterval(() => {
    if (ancestors() === "gone" || process.ppid === 1 || (isShell && !isAlive(Number(grandparent)))) void stop(0);
  }, 1000).unref();
}

async function stop(code) {
  if (isStopping) return;
  isStopping = true;
  for (const step of undo.reverse()) {
    try {
      await step();
    } catch (error) {
      console.error(explain(error));
    }
  }
  process.exit(code);
}

function explain(error) {
  if (error?.code === "EADDRINUSE")
    return `Port ${port} is taken by another program. Choose another one: PORT=4781 npm start`;
  if (["MigrationRefused", "StartRefused"].includes(error?.constructor?.name)) return error.message;
  const cause = error?.original ?? error?.parent ?? error;
  if (process.env.DATABASE_URL && ["ECONNREFUSED", "ENOTFOUND", "28P01", "3D000"].includes(cause?.code)) {
    return `The database at DATABASE_URL does not let Pale Cap in: ${cause.message}`;
  }
  return cause?.message && cause !== error ? `${cause.message}\n${error.stack}` : (error?.stack ?? String(error));
}
