import { randomBytes } from "node:crypto";
import storeOf from "connect-pg-simple";
import type { NextFunction, Request, RequestHandler, Response } from "express";
import session from "express-session";
import pg from "pg";
import { everyone, rightsBy, setWho, type Who } from "./who";

/** What a session of a browser holds. */
declare module "express-session" {
  interface SessionData {
    /** Who opened this browser by their password: it stays a bench of the shop while others take it over by PIN. */
    openedBy?: string;
    /** Who is at it; null while the bench is left. */
    who?: { readonly accountId: string; readonly by: Who["by"] } | null;
    benchId?: string | null;
    seenAt?: number;
  }
}

const hourMilliseconds = 3_600_000;
/** Nobody touched it for so long: sign in again. */
const idleMilliseconds = 14 * hourMilliseconds;
/** A session in use is written down so often, not with each request. */
const touchMilliseconds = 10 * 60_000;
const mostConnections = 4;

/** How people are told from one another; null stands for a machine that runs alone. */
export interface Sessions {
  /** Goes before every route of the API: says of each request who sends it. */
  readonly identify: readonly RequestHandler[];
  /** Ends what somebody opened or is at; `except` is the browser that asks. */
  endOf(accountId: string, except?: string): Promise<void>;
  /** Whether a session still stands, with somebody at it. */
  holds(sessionId: string): Promise<boolean>;
  close(): Promise<void>;
}

export interface SessionOptions {
  readonly databaseUrl: string;
  /** Cookies travel over TLS alone. */
  readonly isSecure: boolean;
}

/** Sessions in the database, so that every server process knows them and a restart signs nobody out. */
export async function openSessions({ databaseUrl, isSecure }: SessionOptions): Promise<Sessions> {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: mostConnections, connectionTimeoutMillis: 5000 });
  // An idle connection that breaks is told here; the next request opens another.
  pool.on("error", () => undefined);
  const Store = storeOf(session);
  const store = new Store({
    ...{ pool, tableName: "sessions", createTableIfMissing: false, disableTouch: true },
    // The table's own index makes it cheap; two processes doing it at once do no harm.
    pruneSessionInterval: 15 * 60,
    errorLog: () => undefined,
  });
  const secret = await keyNamed(pool, "session");
  const sessions = session({
    ...{ store, secret, resave: false, saveUninitialized: false },
    name: isSecure ? "__Host-pale-cap" : "pale-cap",
    cookie: { httpOnly: true, sameSite: "strict", secure: isSecure, path: "/", maxAge: idleMilliseconds },
  });
  const ofAccount = "(sess->>'openedBy' = $1 OR sess->'who'->>'accountId' = $1)";
  return {
    identify: [sessions, identify(pool)],
    endOf: async (accountId, except = "") => {
      await pool.query(`DELETE FROM sessions WHERE ${ofAccount} AND sid <> $2`, [accountId, except]);
    },
    holds: async (sessionId) => {
      const { rowCount } = await pool.query(
        "SELECT 1 FROM sessions WHERE sid = $1 AND sess->'who'->>'accountId' IS NOT NULL",
        [sessionId],
      );
      return rowCount === 1;
    },
    close: async () => {
      store.close();
      await pool.end();
    },
  };
}

/** Made once and kept with the data: every process of this shop signs and reads the same cookies. */
async function keyNamed(pool: pg.Pool, name: string): Promise<string> {
  await pool.query("INSERT INTO server_keys (name, value) VALUES ($1, $2) ON CONFLICT (name) DO NOTHING", [
    name,
    randomBytes(32).toString("hex"),
  ]);
  const { rows } = await pool.query("SELECT value FROM server_keys WHERE name = $1", [name]);
  return rows[0].value;
}

/** Asks for the account with every request: what a lead changed holds at once, in every process. */
function identify(pool: pg.Pool): RequestHandler {
  return async (request: Request, _response: Response, next: NextFunction) => {
    const { who, benchId = null, seenAt = 0 } = request.session;
    if (who) {
      const { rows } = await pool.query(
        `SELECT a.person_id, p.name, a.role, a.pin_hash IS NOT NULL AS has_pin
         FROM accounts a JOIN people p ON p.id = a.person_id WHERE a.id = $1 AND a.is_active`,
        [who.accountId],
      );
      const account = rows[0];
      if (account) {
        const { person_id: personId, name, role, has_pin: hasPin } = account;
        setWho(request, { ...who, personId, name, role, rights: rightsBy(role, who.by), benchId, hasPin });
        if (Date.now() - seenAt > touchMilliseconds) request.session.seenAt = Date.now();
      }
    }
    next();
  };
}

/** Where nobody signs in, everybody is everyone. */
export const identifyEveryone: RequestHandler = (request, _response, next) => {
  setWho(request, everyone);
  next();
};

/** Another session id at each sign-in: one that was planted before is worth nothing after. */
export async function beginSession(request: Request, accountId: string, benchId: string | null): Promise<void> {
  await new Promise<void>((resolve, reject) => {
    request.session.regenerate((error: unknown) => (error ? reject(error) : resolve()));
  });
  Object.assign(request.session, {
    openedBy: accountId,
    who: { accountId, by: "password" },
    benchId,
    seenAt: Date.now(),
  });
  await saveSession(request);
}

export const saveSession = (request: Request): Promise<void> =>
  new Promise((resolve, reject) => {
    request.session.save((error: unknown) => (error ? reject(error) : resolve()));
  });

export const endSession = (request: Request): Promise<void> =>
  new Promise((resolve, reject) => {
    request.session.destroy((error: unknown) => (error ? reject(error) : resolve()));
  });

/** Somebody opened this browser by a password, and it was neither ended nor left for too long. */
export const isBenchOpen = (request: Request): boolean => request.session?.openedBy !== undefined;
