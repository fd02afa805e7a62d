import type { Realm, Role } from "@pale-cap/contract";
import { type Order, QueryTypes, type Sequelize, type Transaction } from "sequelize";
import type { Models } from "./models/index";
import type { JobRow } from "./models/jobs";
import type { Table } from "./models/table";
import { Rows } from "./rows";

/** The clock of the page that sent a request, and by how much it ran ahead of the server's. */
export interface RequestClock {
  readonly id: string;
  readonly aheadSeconds: number;
}

/** Who does something, from where, and in which world. */
export interface Caller {
  readonly personId: string | null;
  readonly role: Role;
  readonly benchId: string | null;
  readonly clock: RequestClock | null;
}

export type AllRows = {
  readonly [K in keyof Models]: Rows<Models[K] extends Table<infer Row> ? Row : never>;
};

/** A table by its name, where many are treated alike: its rows are what its columns say. */
export interface PlainRows {
  readonly columns: Readonly<Record<string, string>>;
  all(where: object, order: Order): Promise<Record<string, unknown>[]>;
  insertAll(rows: readonly object[]): Promise<void>;
}
export const plainRows = (rows: AllRows, name: keyof AllRows): PlainRows => rows[name] as PlainRows;

/**
 * Everything a handler may touch: one transaction with its tables. There is no way from here to a query outside it, so
 * that nobody who holds a connection can wait for a second one.
 */
export interface Scope extends Caller {
  /** The world of everything that is asked across jobs: nothing of another one is ever in an answer. */
  readonly realm: Realm;
  readonly rows: AllRows;
  readonly now: Date;
  /** The job whose row is held, as it stood when it was locked; null where a route belongs to none. */
  readonly job: JobRow | null;
  sql<T extends object>(text: string, bind?: readonly unknown[]): Promise<T[]>;
}

/** Nobody in particular: reads, and what the server does by itself. */
export const noCaller: Caller = { personId: null, role: "everyone", benchId: null, clock: null };

export function openScope(
  { sequelize, models, realm }: { readonly sequelize: Sequelize; readonly models: Models; readonly realm: Realm },
  transaction: Transaction,
  now: Date,
  caller: Caller,
): Scope {
  const rows = Object.entries(models).map(([name, table]) => [name, new Rows(table as Table<object>, transaction)]);
  return {
    ...caller,
    realm,
    rows: Object.fromEntries(rows) as AllRows,
    now,
    job: null,
    sql: <T extends object>(text: string, bind: readonly unknown[] = []) =>
      sequelize.query<T>(text, {
        ...(bind.length > 0 ? { bind: [...bind] } : {}),
        type: QueryTypes.SELECT,
        transaction,
      }),
  };
}
