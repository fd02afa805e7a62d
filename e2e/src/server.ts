import { type ChildProcess, spawn } from "node:child_process";
import { randomUUID } from "node:crypto";
import { dirname } from "node:path";
import { fileURLToPath } from "node:url";
import pg from "pg";
import { freePort } from "./freePort";

const checkout = dirname(dirname(dirname(fileURLToPath(import.meta.url))));

/** The built application as a process of its own, on a database of its own. */
export interface ServerUnderTest {
  readonly address: string;
  readonly databaseUrl: string;
  /** The name of its database. */
  readonly database: string;
  /** What it said on its console. */
  said(): string;
  start(): Promise<void>;
  /** SIGKILL: nothing is closed, nothing is flushed. */
  kill(): Promise<void>;
  close(): Promise<void>;
}

/** Nothing listens there: a test that wants the simulated bench starts its own. */
const unusedPort = 1;

interface ServerOptions {
  /** A shop, where people sign in. */
  readonly mode?: "alone" | "shop";
  /** Another process on the database of this one. */
  readonly beside?: ServerUnderTest;
  /** A proxy in front of it, by its port: pages come from there too. */
  readonly frontPort?: number;
}

/**
 * @param benchPort first port of a simulated bench
 * @param demo whether the empty database is filled with the demo shop
 */
export async function openServer(
  demo: "demo" | "none",
  benchPort = unusedPort,
  options: ServerOptions = {},
): Promise<ServerUnderTest> {
  const { TEST_POSTGRES_ADDRESS: postgres, TEST_POSTGRES_OWNER: owner, TEST_POSTGRES_APP: app } = process.env;
  if (!postgres || !owner || !app)
    throw new Error("Browser tests need a cluster: run them with `npm run test:browser`.");
  const name = options.beside?.database ?? `browser_${randomUUID().replaceAll("-", "")}`;
  if (!options.beside) {
    const template = await ensureTemplate(demo);
    await onPostgres(postgres, (client) =>
      client.query(`CREATE DATABASE ${name} TEMPLATE ${template} OWNER pale_cap_owner`),
    );
  }
  const databaseUrl = `${app}${name}`;
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  let child: ChildProcess | undefined;
  let said = "";

  const gone = (one: ChildProcess) =>
    new Promise<void>((resolve) => {
      if (one.exitCode !== null || one.signalCode !== null) resolve();
      else one.once("exit", () => resolve());
    });
  const end = async (signal: NodeJS.Signals) => {
    if (!child) return;
    child.kill(signal);
    await gone(child);
    child = undefined;
  };
  const server: ServerUnderTest = {
    address,
    databaseUrl,
    database: name,
    said: () => said,
    start: async () => {
      const { mode = "alone", frontPort } = options;
      child = spawnServer({ databaseUrl, ownerUrl: `${owner}${name}`, port, demo, benchPort, mode, frontPort });
      child.stdout?.on("data", (chunk) => {
        said += chunk;
      });
      await untilHealthy(address, child);
    },
    kill: () => end("SIGKILL"),
    close: async () => {
      await end("SIGTERM");
      if (options.beside) return;
      await onPostgres(postgres, (client) => client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`));
    },
  };
  await server.start();
  return server;
}

interface ServerProcess {
  readonly databaseUrl: string;
  readonly ownerUrl: string;
  readonly port: number;
  readonly demo: "demo" | "none";
  readonly benchPort: number;
  readonly mode?: "alone" | "shop";
  readonly frontPort?: number | undefined;
}

function spawnServer(of: ServerProcess): ChildProcess {
  const { databaseUrl, ownerUrl, port, demo, benchPort, mode = "alone", frontPort } = of;
  return spawn(process.execPath, ["server/dist/main.mjs"], {
    cwd: checkout,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      DATABASE_OWNER_URL: ownerUrl,
      PORT: String(port),
      PALE_CAP_DEMO: demo,
      BENCH_PORT: String(benchPort),
      PALE_CAP_MODE: mode,
      // What it logs of each request is nobody's to read here; its link for the first lead is.
      LOG_LEVEL: "warn",
      ...(frontPort ? { FRONT_PORT: String(frontPort) } : {}),
    },
    stdio: ["ignore", mode === "shop" ? "pipe" : "inherit", "inherit"],
  });
}

/** A database that a server has migrated and settled, made once a run: every test starts on a copy of it. */
function ensureTemplate(demo: "demo" | "none"): Promise<string> {
  const { TEST_POSTGRES_ADDRESS: postgres = "" } = process.env;
  const name = `browser_template_${demo}`;
  return onPostgres(postgres, async (client) => {
    // The other row of files waits until it is whole.
    await client.query("SELECT pg_advisory_lock(hashtext($1))", [name]);
    const found = await client.query("SELECT 1 FROM pg_database WHERE datname = $1", [name]);
    if (found.rowCount === 0) {
      await client.query(`CREATE DATABASE ${name} OWNER pale_cap_owner`);
      await settleTemplate(name, demo);
    }
    return name;
  });
}

async function settleTemplate(name: string, demo: "demo" | "none"): Promise<void> {
  const { TEST_POSTGRES_OWNER: owner, TEST_POSTGRES_APP: app } = process.env;
  const port = await freePort();
  const child = spawnServer({
    databaseUrl: `${app}${name}`,
    ownerUrl: `${owner}${name}`,
    port,
    demo,
    benchPort: unusedPort,
  });
  await untilHealthy(`http://127.0.0.1:${port}`, child);
  await untilSettled(`http://127.0.0.1:${port}`);
  const gone = new Promise((resolve) => child.once("exit", resolve));
  child.kill("SIGTERM");
  await gone;
}

async function untilHealthy(address: string, child: ChildProcess): Promise<void> {
  for (let attempt = 0; attempt < 900; attempt++) {
    if (child.exitCode !== null) throw new Error("The server under test ended while starting.");
    const answer = await fetch(`${address}/api/health`).catch(() => null);
    if (answer?.ok) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error("The server under test did not answer within 90 s.");
}

/** Every summary is folded: what is left to do would be done again in each copy. */
async function untilSettled(address: string): Promise<void> {
  for (let attempt = 0; attempt < 300; attempt++) {
    const answer = await fetch(`${address}/api/bench`);
    if (((await answer.json()) as { readonly isSettled: boolean }).isSettled) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error("The server under test did not come to rest within 30 s.");
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
