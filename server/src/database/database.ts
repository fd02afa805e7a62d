import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { Sequelize } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { defineModels, type Models } from "./models/index";

export interface Database {
  readonly sequelize: Sequelize;
  readonly models: Models;
  migrate(): Promise<void>;
  close(): Promise<void>;
}

const migrationsFolder = join(dirname(fileURLToPath(import.meta.url)), "migrations");

/** Opens a pool on a PostgreSQL address; nothing is connected before the first query. */
export function openDatabase(url: string): Database {
  const sequelize = new Sequelize(url, { dialect: "postgres", logging: false, pool: { max: 8 } });
  const umzug = new Umzug({
    migrations: {
      glob: ["*.{ts,js}", { cwd: migrationsFolder }],
      // Stored without extension: development (.ts) and a compiled build (.js) must see the same migrations.
      resolve: ({ name, path, context }) => ({
        name: name.replace(/\.[jt]s$/, ""),
        up: async () => (await import(path as string)).up({ context }),
      }),
    },
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: "migrations" }),
    logger: undefined,
  });
  return {
    sequelize,
    models: defineModels(sequelize),
    migrate: async () => {
      await umzug.up();
    },
    close: () => sequelize.close(),
  };
}
