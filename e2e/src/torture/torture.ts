import pg from "pg";
import { freePort } from "../freePort";
import { openFrontProxy } from "../frontProxy";
import { openServer, type ServerUnderTest } from "../server";
import { ApiWriter } from "./apiWriter";
import { BrowserWriter } from "./browserWriter";

export interface TortureResult {
  /** What a client was told is stored, or a page showed as kept. */
  readonly acknowledged: number;
  /** Of them in the browser. */
  readonly inBrowser: number;
  readonly lost: number;
  readonly doubled: number;
  /** Kept in a browser and still not stored at the end. */
  readonly waiting: number;
  readonly kills: Readonly<Record<Victim, number>>;
  readonly isGood: boolean;
}

const victims = ["server", "backend", "postmaster", "chromium"] as const;
type Victim = (typeof victims)[number];

const writers = 4;
const pauseMilliseconds = [800, 3000] as const;
/** After the last kill everything has so long to come to rest. */
const restMilliseconds = 90_000;
const leastInBrowserPerMinute = 3;

const pause = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));

/**
 * Clients and a real browser write facts while either of two servers, a database connection, the postmaster and the browser are killed at
 * random. In a part of it the browser's storage does not open. What was acknowledged must be stored, once.
 */
export async function torture(of: {
  readonly minutes: number;
  readonly postmasterPid: () => number | null;
  readonly say: (words: string) => void;
}): Promise<TortureResult> {
  // Every browser that is opened anew listens for the end of this process.
  process.setMaxListeners(0);
  const frontPort = await freePort();
  const first = await openServer("none", undefined, { frontPort });
  const second = await openServer("none", undefined, { frontPort, beside: first });
  const servers = [first, second] as const;
  const addresses = servers.map((one) => one.address);
  const front = await openFrontProxy(frontPort, addresses);
  const database = new Watcher(first.databaseUrl);
  // Some know both servers and go to the other where one does not answer; the browser knows what stands in front of them.
  const api = await Promise.all(Array.from({ length: writers }, () => ApiWriter.open(addresses)));
  const browser = await BrowserWriter.open(front.address, (text) => database.hasText(text));
  const kills: Record<Victim, number> = { server: 0, backend: 0, postmaster: 0, chromium: 0 };
  const end = Date.now() + of.minutes * 60_000;
  const work = [...api.map((one) => one.writeUntil(end)), browser.writeUntil(end)];
  for (let n = 0; Date.now() < end; n++) {
    await pause(pauseMilliseconds[0] + Math.random() * (pauseMilliseconds[1] - pauseMilliseconds[0]));
    // Each in turn at first, so that a short run has met them all.
    const victim = victims[n < victims.length ? n : Math.floor(Math.random() * victims.length)] as Victim;
    // The middle third of the time: the browser keeps nothing.
    const share = 1 - (end - Date.now()) / (of.minutes * 60_000);
    browser.isStorageShut = share > 1 / 3 && share < 2 / 3;
    if (await kill(victim, { servers, database, browser, postmasterPid: of.postmasterPid })) kills[victim] += 1;
  }
  of.say(`Killed: ${victims.map((one) => `${kills[one]} ${one}`).join(", ")}. Waiting for rest.`);
  await Promise.all(work);
  browser.isStorageShut = false;
  await browser.rest(restMilliseconds);
  const acknowledged = [...api.flatMap((one) => one.acknowledged), ...browser.acknowledged];
  const counts = await database.counts();
  const waiting = await browser.waitingTexts();
  const missing = acknowledged.filter((text) => !counts.has(text));
  await browser.close();
  await database.close();
  await front.close();
  await second.close();
  await first.close();
  const result = {
    acknowledged: acknowledged.length,
    inBrowser: browser.acknowledged.length,
    lost: missing.filter((text) => !waiting.includes(text)).length,
    doubled: [...counts.values()].filter((count) => count > 1).length,
    waiting: waiting.length,
    kills,
  };
  const isGood = result.lost === 0 && result.doubled === 0 && result.waiting === 0;
  // A browser that hardly gets to type shows nothing.
  const isTyping = result.inBrowser >= leastInBrowserPerMinute * of.minutes;
  return { ...result, isGood: isGood && isTyping };
}

/** The database may be away itself: it is started until it comes up. */
async function startAgain(server: ServerUnderTest): Promise<void> {
  for (let tries = 0; tries < 30; tries++) {
    const isUp = await server.start().then(
      () => true,
      () => false,
    );
    if (isUp) return;
    await pause(1000);
  }
  throw new Error("The server did not come up again.");
}

/** What is printed at the end: one line. */
export function resultLine({ acknowledged, inBrowser, lost, doubled, waiting }: TortureResult): string {
  return `acknowledged ${acknowledged} (${inBrowser} of them in the browser), lost ${lost}, doubled ${doubled}, waiting ${waiting}`;
}

async function kill(
  victim: Victim,
  of: {
    readonly servers: readonly ServerUnderTest[];
    readonly database: Watcher;
    readonly browser: BrowserWriter;
    readonly postmasterPid: () => number | null;
  },
): Promise<boolean> {
  switch (victim) {
    case "server": {
      // One of them, either; now and then both at once.
      const all = Math.random() < 0.2 ? of.servers : [of.servers[Math.floor(Math.random() * of.servers.length)]];
      const killed = all.filter((one) => one !== undefined);
      await Promise.all(killed.map((one) => one.kill()));
      await pause(Math.random() * 1500);
      for (const one of killed) await startAgain(one);
      return true;
    }
    case "backend":
      return of.database.killOne();
    case "postmaster": {
      const pid = of.postmasterPid();
      if (pid === null) return false;
      process.kill(pid, "SIGKILL");
      return true;
    }
    case "chromium":
      return of.browser.kill();
  }
}

/** Looks into the database beside the application, whatever happens to its connections. */
class Watcher {
  private readonly pool: pg.Pool;

  constructor(applicationUrl: string) {
    const url = new URL(process.env.TEST_POSTGRES_ADDRESS as string);
    url.pathname = new URL(applicationUrl).pathname;
    this.pool = new pg.Pool({ connectionString: url.href, max: 2, connectionTimeoutMillis: 2000 });
    this.pool.on("error", () => undefined);
  }

  private async ask<T extends pg.QueryResultRow>(text: string, values: unknown[] = []): Promise<T[]> {
    for (let tries = 0; ; tries++) {
      try {
        return (await this.pool.query<T>(text, values)).rows;
      } catch (error) {
        if (tries > 60) throw error;
        await pause(500);
      }
    }
  }

  async hasText(text: string): Promise<boolean> {
    return (await this.ask("SELECT 1 FROM readings WHERE raw_text = $1", [text])).length > 0;
  }

  async counts(): Promise<ReadonlyMap<string, number>> {
    const rows = await this.ask<{ text: string; count: number }>(
      "SELECT raw_text AS text, count(*)::int AS count FROM readings GROUP BY raw_text",
    );
    return new Map(rows.map(({ text, count }) => [text, count]));
  }

  /** One connection of the application, in the middle of whatever it does. */
  async killOne(): Promise<boolean> {
    const rows = await this.ask<{ pid: number }>(
      `SELECT pid FROM pg_stat_activity WHERE usename = 'pale_cap_app' AND datname = current_database()
       ORDER BY (state = 'active') DESC, random() LIMIT 1`,
    );
    const [row] = rows;
    if (!row) return false;
    await this.ask("SELECT pg_terminate_backend($1)", [row.pid]);
    return true;
  }

  close(): Promise<void> {
    return this.pool.end();
  }
}
