import type { Order, Transaction, WhereOptions } from "sequelize";
import type { Table } from "./models/table";

/** One table inside one transaction: rows in, rows out, typed once by the table. */
export class Rows<Row extends object> {
  constructor(
    private readonly table: Table<Row>,
    private readonly transaction: Transaction,
  ) {}

  async all(where: WhereOptions<Row>, order?: Order): Promise<Row[]> {
    const found = await this.table.findAll({ where, order, transaction: this.transaction, raw: true });
    return found as unknown as Row[];
  }

  async first(where: WhereOptions<Row>, order?: Order): Promise<Row | null> {
    const found = await this.table.findOne({ where, order, transaction: this.transaction, raw: true });
    return found as unknown as Row | null;
  }

  /** The row, held until the transaction ends. */
  async locked(where: WhereOptions<Row>): Promise<Row | null> {
    const found = await this.table.findOne({ where, transaction: this.transaction, raw: true, lock: true });
    return found as unknown as Row | null;
  }

  async has(where: WhereOptions<Row>): Promise<boolean> {
    return (await this.table.count({ where, transaction: this.transaction })) > 0;
  }

  async insert(row: Partial<Row>): Promise<void> {
    await this.table.create(row as never, { transaction: this.transaction, returning: false });
  }

  async insertAll(rows: readonly Partial<Row>[]): Promise<void> {
    if (rows.length === 0) return;
    await this.table.bulkCreate([...rows] as never[], { transaction: this.transaction, returning: false });
  }

  /** @returns how many rows were changed */
  async update(values: Partial<Row>, where: WhereOptions<Row>): Promise<number> {
    const [count] = await this.table.update(values as never, { where, transaction: this.transaction });
    return count;
  }

  async upsert(row: Partial<Row>): Promise<void> {
    await this.table.upsert(row as never, {
      transaction: this.transaction,
      returning: false,
    });
  }
}
