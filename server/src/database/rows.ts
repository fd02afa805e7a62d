import {
  type CreationAttributes,
  type Model,
  type Order,
  QueryTypes,
  type Transaction,
  type WhereOptions,
} from "sequelize";
import { type Table, typedColumnsOf } from "./models/table";

type Creation<Row extends object> = CreationAttributes<Model<Row, Partial<Row>>>;
type Change<Row extends object> = Parameters<Table<Row>["update"]>[0];

/**
 * One table inside one transaction: rows in, rows out, typed once by the table. What a person typed of a row that is only ever added to
 * stands apart, in `typed_words`, and comes and goes with its row here.
 */
export class Rows<Row extends object> {
  constructor(
    private readonly table: Table<Row>,
    private readonly transaction: Transaction,
  ) {}

  /** Its columns by the names that rows have, with what each may hold. */
  get columns(): Readonly<Record<string, string>> {
    const attributes = Object.entries(this.table.getAttributes() as Record<string, { type: unknown }>);
    const own = attributes.map(([name, { type }]) => [name, kindOf(type)] as const);
    const typed = [...typedColumnsOf(this.table)].map(
      ([name, kind]) => [name, kind === "json" ? "JSONB" : "TEXT"] as const,
    );
    return Object.fromEntries([...own, ...typed]);
  }

  /** In the order asked for: without one the database gives rows in any, and in another after each change. */
  async all(where: WhereOptions<Row>, order: Order): Promise<Row[]> {
    const found = await this.table.findAll({ where, order, transaction: this.transaction });
    return this.withWords(found.map((one) => one.get({ plain: true })));
  }

  /** One row; where several answer, the first in the order. */
  async first(where: WhereOptions<Row>, order?: Order): Promise<Row | null> {
    const found = await this.table.findOne({ where, order, transaction: this.transaction });
    return found ? this.oneWithWords(found.get({ plain: true })) : null;
  }

  /** The row, held until the transaction ends. */
  async locked(where: WhereOptions<Row>): Promise<Row | null> {
    const found = await this.table.findOne({ where, transaction: this.transaction, lock: true });
    return found ? this.oneWithWords(found.get({ plain: true })) : null;
  }

  count(where: WhereOptions<Row>): Promise<number> {
    return this.table.count({ where, transaction: this.transaction });
  }

  async has(where: WhereOptions<Row>): Promise<boolean> {
    return (await this.count(where)) > 0;
  }

  async insert(row: Partial<Row>): Promise<void> {
    await this.table.create(row as Creation<Row>, { transaction: this.transaction, returning: false });
    await this.keepWords([row]);
  }

  async insertAll(rows: readonly Partial<Row>[]): Promise<void> {
    if (rows.length === 0) return;
    await this.table.bulkCreate([...rows] as Creation<Row>[], { transaction: this.transaction, returning: false });
    await this.keepWords(rows);
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

  /** @returns how many rows went: of tables that may be made anew from others */
  async remove(where: WhereOptions<Row>): Promise<number> {
    return this.table.destroy({ where, transaction: this.transaction });
  }

  private async oneWithWords(row: Row): Promise<Row> {
    const [whole] = await this.withWords([row]);
    return whole as Row;
  }

  private async withWords(rows: Row[]): Promise<Row[]> {
    const typed = typedColumnsOf(this.table);
    const { sequelize } = this.table;
    if (typed.size === 0 || rows.length === 0 || !sequelize) return rows;
    const words = await sequelize.query<{ id: string; field: string; words: string }>(
      "SELECT row_id AS id, field, words FROM typed_words WHERE row_id = ANY($1::uuid[])",
      { bind: [rows.map(idOf)], type: QueryTypes.SELECT, transaction: this.transaction },
    );
    const nothing = Object.fromEntries([...typed.keys()].map((name) => [name, null]));
    const byRow = new Map<string, Record<string, unknown>>();
    for (const one of words) {
      const said = byRow.get(one.id) ?? {};
      said[one.field] = typed.get(one.field) === "json" ? JSON.parse(one.words) : one.words;
      byRow.set(one.id, said);
    }
    return rows.map((row) => ({ ...row, ...nothing, ...byRow.get(idOf(row)) }));
  }

  private async keepWords(rows: readonly Partial<Row>[]): Promise<void> {
    const typed = typedColumnsOf(this.table);
    const { sequelize } = this.table;
    if (typed.size === 0 || !sequelize) return;
    const said = rows.flatMap((row) =>
      [...typed].flatMap(([field, kind]) => {
        const value = (row as Readonly<Record<string, unknown>>)[field];
        const { jobId } = row as { readonly jobId?: string };
        return value == null
          ? []
          : [{ id: idOf(row), field, jobId, words: kind === "json" ? JSON.stringify(value) : String(value) }];
      }),
    );
    if (said.length === 0) return;
    await sequelize.query(
      `INSERT INTO typed_words (row_id, field, job_id, words)
       SELECT id, field, "jobId", words FROM jsonb_to_recordset($1::jsonb) AS one(id uuid, field text, "jobId" uuid, words text)`,
      { bind: [JSON.stringify(said)], transaction: this.transaction },
    );
  }
}

const idOf = (row: object): string => (row as { readonly id: string }).id;

/** `UUID`, `TEXT`, `DOUBLE PRECISION` and so on; a list says of what. */
function kindOf(type: unknown): string {
  const { key, type: item } = type as { key: string; type?: { key?: string } };
  return key === "ARRAY" ? `ARRAY ${item?.key ?? ""}` : key;
}
