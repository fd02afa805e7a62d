import { readdir } from "node:fs/promises";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { type QueryInterface, QueryTypes, Sequelize, type Transaction } from "sequelize";
import { Umzug } from "umzug";
import type { Database } from "./database";
import { grantRights } from "./rights";

const folder = join(dirname(fileURLToPath(import.meta.url)), "migrations");
/** A build lays a map beside each step. */
const ending = /\.(ts|mjs)$/;
const isStep = (file: string) => ending.test(file);
const stepName = (file: string) => file.replace(ending, "");
/** Whoever migrates holds this lock, so that two starts at once are one migration. */
const advisoryLock = 4780_2026;

/** Said to the person who starts; nothing was changed. */
export class MigrationRefused extends Error {}

export interface MigrationOptions {
  /** The role that the application connects as; its rights are set after the last step. null: one role for everything. */
  readonly applicationRole: string | null;
  /** Called once before anything is changed, with what is going to be done; a refusal here stops it all. */
  readonly before?: (pending: readonly string[], isEmpty: boolean) => Promise<void>;
}

/**
 * Brings a database up to date as its owner, one transaction a step.
 *
 * @throws {MigrationRefused} where the database knows steps that this program does not: a newer one wrote it
 */
export async function migrate(ownerUrl: string, options: MigrationOptions): Promise<readonly string[]> {
  const sequelize = new Sequelize(ownerUrl, { dialect: "postgres", logging: false, pool: { max: 2 } });
  const umzug = migrationsOf(sequelize);
  try {
    await requireVersion(sequelize);
    return await locked(sequelize, async () => {
      const done = await doneMigrations(sequelize);
      const known = (await umzug.migrations({})).map((one) => one.name);
      const strange = done.filter((name) => !known.includes(name));
      if (strange.length > 0) {
        throw new MigrationRefused(
          `This database was written by a newer Pale Cap: it knows ${strange.join(", ")}. ` +
            "Nothing was changed. Start it with that version, or restore a backup of this one.",
        );
      }
      const pending = (await umzug.pending()).map((one) => one.name);
      if (pending.length > 0) await options.before?.(pending, done.length === 0);
      await umzug.up();
      await grantRights(sequelize, options.applicationRole);
      return pending;
    });
  } finally {
    await sequelize.close();
  }
}

/** What the oldest PostgreSQL calls itself whose SQL this program speaks. */
const oldestVersion = 150_000;

export function versionFault(versionNumber: number): string | null {
  if (versionNumber >= oldestVersion) return null;
  return `This database is PostgreSQL ${Math.floor(versionNumber / 10_000)}; Pale Cap needs 15 or later. Nothing was changed.`;
}

async function requireVersion(sequelize: Sequelize): Promise<void> {
  const [row] = await sequelize.query<{ number: string }>("SELECT current_setting('server_version_num') AS number", {
    type: QueryTypes.SELECT,
  });
  const fault = versionFault(Number(row?.number));
  if (fault !== null) throw new MigrationRefused(fault);
}

/** The steps that this program knows, in order; names without extension, so that .ts and a build's .mjs are the same. */
export function migrationsOf(sequelize: Sequelize) {
  return new Umzug({
    migrations: {
      glob: ["*.{ts,mjs}", { cwd: folder }],
      resolve: ({ name, path }) => {
        const known = stepName(name);
        return { name: known, up: () => step(sequelize, known, path as string) };
      },
    },
    storage: {
      executed: async () => [...(await doneMigrations(sequelize))],
      // Each step notes itself, in its own transaction.
      logMigration: async () => undefined,
      unlogMigration: () => Promise.reject(new Error("A step is never taken back: restore a backup.")),
    },
    logger: undefined,
  });
}

/** Whether a database lacks steps that this program knows; asked as the application. */
export async function hasPendingMigrations(database: Database, now: Date): Promise<boolean> {
  const known = (await readdir(folder)).filter(isStep).map(stepName);
  const done = await database.read(now, ({ sql }) => sql<{ name: string }>("SELECT name FROM migrations"));
  const names = new Set(done.map((one) => one.name));
  return known.some((name) => !names.has(name));
}

/** The role whose rights are set; null where one role owns and uses everything. */
export function applicationRoleOf(databaseUrl: string, ownerUrl: string): string | null {
  const [application, owner] = [databaseUrl, ownerUrl].map((url) => decodeURIComponent(new URL(url).username));
  return application === owner ? null : (application ?? null);
}

/** The lock is the session's: a transaction held open keeps its connection to itself. */
async function locked<T>(sequelize: Sequelize, work: () => Promise<T>): Promise<T> {
  return sequelize.transaction(async (holder) => {
    await sequelize.query(`SELECT pg_advisory_xact_lock(${advisoryLock})`, { transaction: holder });
    return work();
  });
}

async function doneMigrations(sequelize: Sequelize): Promise<readonly string[]> {
  await sequelize.query("CREATE TABLE IF NOT EXISTS migrations (name varchar(255) PRIMARY KEY)");
  const rows = await sequelize.query<{ name: string }>("SELECT name FROM migrations ORDER BY name", {
    type: QueryTypes.SELECT,
  });
  return rows.map((row) => row.name);
}

async function step(sequelize: Sequelize, name: string, path: string): Promise<void> {
  const module = (await import(path)) as { up(step: object): Promise<void> };
  await sequelize.transaction(async (transaction) => {
    const sql = async (text: string) => {
      await sequelize.query(text, { transaction });
    };
    // The first steps were written against Sequelize's own interface: theirs joins this transaction too.
    await module.up({ sql, context: joined(sequelize.getQueryInterface(), transaction) });
    await sequelize.query("INSERT INTO migrations (name) VALUES ($1)", { bind: [name], transaction });
  });
}

function joined(context: QueryInterface, transaction: Transaction): object {
  return {
    sequelize: {
      query: (text: string) => context.sequelize.query(text, { transaction }),
      transaction: (work: (held: Transaction) => Promise<unknown>) => work(transaction),
    },
  };
}
