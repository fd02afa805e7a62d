import type { CreationAttributes, Model, Order, Transaction, WhereOptions } from "sequelize";
import type { Table } from "./models/table";

type Creation<Row extends object> = CreationAttributes<Model<Row, Partial<Row>>>;
type Change<Row extends object> = Parameters<Table<Row>["update"]>[0];

/** One table inside one transaction: rows in, rows out, typed once by the table. */
export class Rows<Row extends object> {
  constructor(
    private readonly table: Table<Row>,
    private readonly transaction: Transaction,
  ) {}

  /** Its columns by the names that rows have, with what each may hold. */
  get columns(): Readonly<Record<string, string>> {
    const attributes = Object.entries(this.table.getAttributes() as Record<string, { type: unknown }>);
    return Object.fromEntries(attributes.map(([name, { type }]) => [name, kindOf(type)]));
  }

  /** In the order asked for: without one the database gives rows in any, and in another after each change. */
  async all(where: WhereOptions<Row>, order: Order): Promise<Row[]> {
    const found = await this.table.findAll({ where, order, transaction: this.transaction });
    return found.map((one) => one.get({ plain: true }));
  }

  /** One row; where several answer, the first in the order. */
  async first(where: WhereOptions<Row>, order?: Order): Promise<Row | null> {
    const found = await this.table.findOne({ where, order, transaction: this.transaction });
    return found?.get({ plain: true }) ?? null;
  }

  /** The row, held until the transaction ends. */
  async locked(where: WhereOptions<Row>): Promise<Row | null> {
    const found = await this.table.findOne({ where, transaction: this.transaction, lock: true });
    return found?.get({ plain: true }) ?? null;
  }

  count(where: WhereOptions<Row>): Promise<number> {
    return this.table.count({ where, transaction: this.transaction });
  }

  async has(where: WhereOptions<Row>): Promise<boolean> {
    return (await this.count(where)) > 0;
  }

  async insert(row: Partial<Row>): Promise<void> {
    await this.table.create(row as Creation<Row>, { transaction: this.transaction, returning: false });
  }

  async insertAll(rows: readonly Partial<Row>[]): Promise<void> {
    if (rows.length === 0) return;
    await this.table.bulkCreate([...rows] as Creation<Row>[], { transaction: this.transaction, returning: false });
  }

  /** @returns how many rows were changed */
  async update(values: Partial<Row>, where: WhereOptions<Row>): Promise<number> {
    const [count] = await this.table.update(values as Change<Row>, { where, transaction: this.transaction });
    return count;
  }

  async upsert(row: Partial<Row>): Promise<void> {
    await this.table.upsert(row as Creation<Row>, {
      transaction: this.transaction,
      returning: false,
    });
  }
}

/** `UUID`, `TEXT`, `DOUBLE PRECISION` and so on; a list says of what. */
function kindOf(type: unknown): string {
  const { key, type: item } = type as { key: string; type?: { key?: string } };
  return key === "ARRAY" ? `ARRAY ${item?.key ?? ""}` : key;
}
