import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from "sequelize";

/** A table whose rows are read and written as plain objects of type Row. */
export type Table<Row extends object> = ModelStatic<Model<Row, Partial<Row>>>;

/** Column kinds; attribute names in camel case, columns in snake case. */
export const column = {
  key: { type: DataTypes.UUID, primaryKey: true },
  textKey: { type: DataTypes.TEXT, primaryKey: true },
  wholeKey: { type: DataTypes.INTEGER, primaryKey: true },
  id: { type: DataTypes.UUID },
  text: { type: DataTypes.TEXT },
  real: { type: DataTypes.DOUBLE },
  whole: { type: DataTypes.INTEGER },
  /** Given by the database. */
  count: { type: DataTypes.BIGINT },
  flag: { type: DataTypes.BOOLEAN },
  moment: { type: DataTypes.DATE },
  day: { type: DataTypes.DATEONLY },
  json: { type: DataTypes.JSONB },
  bytes: { type: DataTypes.BLOB },
  texts: { type: DataTypes.ARRAY(DataTypes.TEXT) },
  ids: { type: DataTypes.ARRAY(DataTypes.UUID) },
  /**
   * What a person typed, of a row that is only ever added to: it stands in `typed_words`, where a name can be taken out of it, and comes
   * with the row as if it stood there.
   */
  typed: { type: DataTypes.TEXT },
  /** The same for a document in which somebody typed. */
  typedJson: { type: DataTypes.JSONB },
} as const;

/** Columns of a table that stand in `typed_words`, and whether each is a document. */
export type TypedColumns = ReadonlyMap<string, "text" | "json">;
const typedColumns = new WeakMap<object, TypedColumns>();
const none: TypedColumns = new Map();
export const typedColumnsOf = (table: object): TypedColumns => typedColumns.get(table) ?? none;

/** What the server adds to every fact at storing; the place in the order is the database's to give. */
export interface FactColumns {
  sequence: number;
  clockId: string | null;
  receivedAt: Date | null;
  clockAheadSeconds: number | null;
  cameAfterClosing: boolean;
}

export const factColumns = {
  sequence: column.count,
  clockId: column.id,
  receivedAt: column.moment,
  clockAheadSeconds: column.real,
  cameAfterClosing: column.flag,
} as const;

/** Defines one table; the migrations own its shape, so nothing is synchronised from here. */
export function defineTable<Row extends object>(
  sequelize: Sequelize,
  tableName: string,
  columns: { readonly [K in keyof Row]: (typeof column)[keyof typeof column] },
): Table<Row> {
  // Sequelize writes into the descriptions it is given: every table gets its own copies.
  const all = Object.entries<object>(columns);
  const isTyped = ([, description]: readonly [string, object]) =>
    description === column.typed || description === column.typedJson;
  const copies = all.filter((one) => !isTyped(one)).map(([name, description]) => [name, { ...description }]);
  const attributes = Object.fromEntries(copies) as ModelAttributes<Model<Row>>;
  const table = sequelize.define<Model<Row, Partial<Row>>>(tableName, attributes, {
    tableName,
    underscored: true,
    timestamps: false,
  }) as Table<Row>;
  const typed = all.filter(isTyped).map(([name, one]) => [name, one === column.typed ? "text" : "json"] as const);
  if (typed.length > 0) typedColumns.set(table, new Map(typed));
  return table;
}
