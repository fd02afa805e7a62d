import type { Realm } from "@pale-cap/contract";
import pg from "pg";
import { ConnectionError, DatabaseError, Sequelize, Transaction } from "sequelize";
import { defineModels } from "./models/index";
import { type Caller, noCaller, openScope, type Scope } from "./scope";

export interface Database {
  /** Whether it holds a shop or the demo. */
  readonly realm: Realm;
  /** Work on a consistent picture; nothing can be written in it. */
  read<T>(now: Date, work: (scope: Scope) => Promise<T>, caller?: Caller): Promise<T>;
  /** One transaction; done again, bounded, where the database gave it up for another. */
  write<T>(now: Date, caller: Caller, work: (scope: Scope) => Promise<T>): Promise<T>;
  /** Whether the database answers, over a connection that nobody else waits for. */
  probe(): Promise<void>;
  close(): Promise<void>;
}

// Counts and sequences stay far below 2^53: as numbers, not as text.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

const poolSize = 8;
const acquireMilliseconds = 20_000;
const statementMilliseconds = 30_000;
const probeMilliseconds = 5000;
/** SQLSTATE of a deadlock and of a failed serialization: the same work may succeed at once. */
const transient = new Set(["40P01", "40001"]);
const mostTries = 6;

/** Opens a pool on a PostgreSQL address, for one world; nothing is connected before the first query. */
export function openDatabase(url: string, realm: Realm, size = poolSize): Database {
  const sequelize = new Sequelize(url, {
    dialect: "postgres",
    logging: false,
    pool: { max: size, acquire: acquireMilliseconds, idle: 30_000 },
    retry: { max: 0 },
    dialectOptions: {
      statement_timeout: statementMilliseconds,
      idle_in_transaction_session_timeout: statementMilliseconds,
      connectionTimeoutMillis: 5000,
      keepAlive: true,
    },
  });
  const tables = { sequelize, models: defineModels(sequelize), realm };
  const prober = new pg.Pool({
    connectionString: url,
    max: 1,
    connectionTimeoutMillis: probeMilliseconds,
    query_timeout: probeMilliseconds,
  });
  // An idle connection that breaks is told here; the next probe opens another.
  prober.on("error", () => undefined);
  return {
    realm,
    read: (now, work, caller = noCaller) =>
      sequelize.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ }, async (held) => {
        const scope = openScope(tables, held, now, caller);
        await scope.sql("SET TRANSACTION READ ONLY");
        return work(scope);
      }),
    write: (now, caller, work) =>
      triedAgain(() => sequelize.transaction((held) => work(openScope(tables, held, now, caller)))),
    probe: async () => {
      await prober.query("SELECT 1");
    },
    close: async () => {
      await prober.end();
      await sequelize.close();
    },
  };
}

/** Repeats what the database gave up for another's sake; anything else is the caller's to hear. */
async function triedAgain<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await work();
    } catch (error) {
      if (tries >= mostTries || !isTransient(error)) throw error;
      await new Promise((resolve) => setTimeout(resolve, 2 ** tries * (4 + Math.random() * 4)));
    }
  }
}

function isTransient(error: unknown): boolean {
  return error instanceof DatabaseError && transient.has((error.parent as { code?: string }).code ?? "");
}

/** SQLSTATEs and system codes of a database that is away, not of a wrong statement. */
const awayCodes = /^(57P0[123]|08\w{3}|53300|55P03|57014|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOENT|25P03)$/;

/** Whether an error says that the database cannot be reached or ended the connection. */
export function isDatabaseAway(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  const { code, message, parent, original } = (error ?? {}) as {
    code?: string;
    message?: string;
    parent?: unknown;
    original?: unknown;
  };
  if (code !== undefined && awayCodes.test(code)) return true;
  if (/Connection terminated|connection is closed|Client has encountered a connection error/i.test(message ?? "")) {
    return true;
  }
  const inner = parent ?? original;
  return inner !== undefined && inner !== error && isDatabaseAway(inner);
}
