/**
 * Drawers whose count is the sum of what moved, a catalogue whose parts are told apart by maker, series and order code, suppliers
 * with their offers, orders, and what a delivery's sample said.
 */
export async function up({ sql }: { sql: (text: string) => Promise<void> }): Promise<void> {
  for (const statement of statements) await sql(statement);
}

const moment = `sequence bigint NOT NULL DEFAULT nextval('fact_sequence'), at timestamptz NOT NULL, person_id uuid REFERENCES people`;

const statements = [
  `ALTER TABLE catalogue_parts ADD COLUMN order_code text, ADD COLUMN source text, ADD COLUMN printed jsonb`,
  // Parts from before had none: their own id is one.
  `UPDATE catalogue_parts SET order_code = upper(replace(id::text, '-', ''))`,
  `ALTER TABLE catalogue_parts ALTER COLUMN order_code SET NOT NULL`,
  `CREATE UNIQUE INDEX catalogue_parts_key ON catalogue_parts (lower(maker), lower(series), lower(order_code))`,
  `ALTER TABLE stock_items ALTER COLUMN catalogue_part_id DROP NOT NULL, ADD COLUMN version integer NOT NULL DEFAULT 1,
    ADD COLUMN origin text NOT NULL DEFAULT 'unknown' CHECK (origin IN ('distributor', 'salvaged', 'unknown')),
    ADD COLUMN lot text, ADD COLUMN date_code text, ADD COLUMN received_on date, ADD COLUMN used_hours double precision,
    ADD COLUMN note text, ADD COLUMN set_aside_reason text, ADD COLUMN marking jsonb,
    ADD CONSTRAINT stock_items_part CHECK ((catalogue_part_id IS NULL) <> (marking IS NULL))`,
  `CREATE TABLE suppliers (
    id uuid PRIMARY KEY, version integer NOT NULL DEFAULT 1, name text NOT NULL, shipping_minor integer NOT NULL,
    free_from_minor integer, days integer NOT NULL, is_used boolean NOT NULL DEFAULT true)`,
  `CREATE TABLE offers (
    supplier_id uuid NOT NULL REFERENCES suppliers, catalogue_part_id uuid NOT NULL REFERENCES catalogue_parts,
    breaks jsonb NOT NULL, stock integer, days integer, PRIMARY KEY (supplier_id, catalogue_part_id))`,
  `CREATE TABLE orders (
    id uuid PRIMARY KEY, version integer NOT NULL DEFAULT 1, supplier_id uuid NOT NULL REFERENCES suppliers,
    at timestamptz NOT NULL, note text, is_closed boolean NOT NULL DEFAULT false, person_id uuid REFERENCES people)`,
  `CREATE TABLE order_lines (
    id uuid PRIMARY KEY, order_id uuid NOT NULL REFERENCES orders, place integer NOT NULL,
    catalogue_part_id uuid NOT NULL REFERENCES catalogue_parts, count integer NOT NULL, unit_minor integer NOT NULL)`,
  `CREATE INDEX order_lines_order ON order_lines (order_id)`,
  `CREATE INDEX order_lines_part ON order_lines (catalogue_part_id)`,
  `CREATE TABLE stock_movements (
    id uuid PRIMARY KEY, ${moment}, item_id uuid NOT NULL REFERENCES stock_items, kind text NOT NULL,
    count_delta integer NOT NULL, reserved_delta integer NOT NULL, position_id uuid REFERENCES positions,
    order_line_id uuid REFERENCES order_lines, note text)`,
  `CREATE INDEX stock_movements_item ON stock_movements (item_id)`,
  `CREATE INDEX stock_movements_position ON stock_movements (position_id)`,
  `CREATE INDEX stock_movements_order_line ON stock_movements (order_line_id)`,
  `INSERT INTO stock_movements (id, at, item_id, kind, count_delta, reserved_delta)
    SELECT gen_random_uuid(), now(), id, 'counted', count, 0 FROM stock_items WHERE count > 0`,
  `ALTER TABLE stock_items DROP COLUMN count`,
  `CREATE TABLE stock_acts (
    id uuid PRIMARY KEY, ${moment}, item_id uuid NOT NULL REFERENCES stock_items, kind text NOT NULL,
    value double precision, volts double precision, seconds double precision, rise_kelvin double precision,
    frequency_hertz double precision, note text)`,
  `CREATE INDEX stock_acts_item ON stock_acts (item_id)`,
  `CREATE TABLE lot_checks (
    id uuid PRIMARY KEY, ${moment}, order_line_id uuid NOT NULL REFERENCES order_lines,
    item_id uuid NOT NULL REFERENCES stock_items, count integer NOT NULL, measured_count integer NOT NULL,
    bad_count integer NOT NULL, allowed_bad_ratio double precision NOT NULL, too_many_probability double precision NOT NULL,
    decision text NOT NULL, pieces jsonb NOT NULL)`,
  `CREATE INDEX lot_checks_order_line ON lot_checks (order_line_id)`,
  `CREATE TABLE catalogue_imports (
    id uuid PRIMARY KEY, ${moment}, source text NOT NULL, added_count integer NOT NULL, changed_count integer NOT NULL,
    same_count integer NOT NULL, changes jsonb NOT NULL)`,
  `ALTER TABLE replacement_plans ADD COLUMN stock_item_id uuid REFERENCES stock_items,
    ADD COLUMN is_left_empty boolean NOT NULL DEFAULT false`,
  // A place that holds no electrolytic: what is known of its old part, and what goes in.
  `ALTER TABLE replacement_plans ADD COLUMN component jsonb`,
  `CREATE TABLE catalogue_components (
    id uuid PRIMARY KEY, kind text NOT NULL, maker text NOT NULL, type_number text NOT NULL, ratings jsonb NOT NULL,
    price_minor integer NOT NULL)`,
  `CREATE INDEX catalogue_components_kind ON catalogue_components (kind)`,
  // What was fitted keeps its name and price, whatever the catalogue says later.
  `ALTER TABLE fitted_parts ADD COLUMN stock_item_id uuid REFERENCES stock_items, ADD COLUMN maker text,
    ADD COLUMN order_code text, ADD COLUMN price_minor integer`,
  `UPDATE fitted_parts f SET maker = c.maker, order_code = c.order_code, price_minor = c.price_minor,
    series = coalesce(f.series, c.series) FROM catalogue_parts c WHERE c.id = f.catalogue_part_id`,
];
