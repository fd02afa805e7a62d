import type { CatalogueReach, CatalogueRow, ReachedParts, StockedPart } from "@pale-cap/contract";
import type { Scope } from "../database/scope";

/** Free pieces in drawers of every catalogue part that has any. */
const freeCounts = `SELECT i.catalogue_part_id AS part_id, sum(m.count_delta - m.reserved_delta)::int AS free
  FROM stock_items i JOIN stock_movements m ON m.item_id = i.id
  WHERE i.catalogue_part_id IS NOT NULL AND i.set_aside_reason IS NULL GROUP BY i.catalogue_part_id`;

const columns = `c.id, c.maker, c.series, c.capacitor_class AS "capacitorClass", c.capacitance_farads AS "capacitanceFarads",
  c.rated_volts AS "ratedVolts", c.temperature_class_celsius AS "temperatureClassCelsius",
  c.diameter_metres AS "diameterMetres", c.height_metres AS "heightMetres", c.pitch_metres AS "pitchMetres",
  c.esr_ohms AS "esrOhms", c.ripple_amps_rms AS "rippleAmpsRms", c.rated_life_hours AS "ratedLifeHours",
  c.price_minor AS "priceMinor", coalesce(s.free, 0) AS "stockCount"`;
const rowColumns = `${columns}, c.order_code AS "orderCode", c.printed, c.source`;

/** As many as one ranking looks at. */
const mostReached = 4000;

/** What no limit that counts turns down before anything is reckoned, out of the whole catalogue, by its index on C and volts. */
export async function reachedParts({ sql }: Scope, reach: CatalogueReach): Promise<ReachedParts> {
  const bind: unknown[] = [];
  const bounds = (list: readonly (readonly [text: string, value: number | null])[]) =>
    list.flatMap(([text, value]) => (value === null ? [] : [`${text} $${bind.push(value)}`]));
  const near = bounds([
    ["c.capacitance_farads >=", reach.leastFarads],
    ["c.capacitance_farads <=", reach.mostFarads],
    ["c.diameter_metres <=", reach.mostDiameterMetres],
    ["c.height_metres <=", reach.mostHeightMetres],
    ["c.esr_ohms <=", reach.mostEsrOhms],
    ["c.ripple_amps_rms >=", reach.leastRippleAmps],
  ]);
  const refused = await refusedCounts({ sql }, reach, near, bind);
  const conditions = [
    ...near,
    ...bounds([
      ["c.rated_volts >=", reach.leastVolts],
      ["c.temperature_class_celsius >=", reach.leastClassCelsius],
    ]),
    ...(reach.isLowEsrOnly ? ["c.capacitor_class <> 'gp'"] : []),
  ];
  const where = conditions.length > 0 ? `WHERE ${conditions.join(" AND ")}` : "";
  const middle =
    reach.leastFarads !== null && reach.mostFarads !== null ? Math.sqrt(reach.leastFarads * reach.mostFarads) : null;
  // Where more are in reach than are sent, those nearest in capacitance come.
  const order = middle === null ? "c.capacitance_farads, c.id" : `abs(ln(c.capacitance_farads / ${middle})), c.id`;
  const parts = await sql<StockedPart>(
    `WITH s AS (${freeCounts}) SELECT ${columns} FROM catalogue_parts c LEFT JOIN s ON s.part_id = c.id
     ${where} ORDER BY ${order} LIMIT ${mostReached + 1}`,
    bind,
  );
  const [total] = await sql<{ count: number }>("SELECT count(*)::int AS count FROM catalogue_parts");
  const isCut = parts.length > mostReached;
  return { parts: parts.slice(0, mostReached), totalCount: total?.count ?? 0, isCut, refused };
}

/** How many would be near but for a limit that stands whatever the reason. */
async function refusedCounts(
  { sql }: Pick<Scope, "sql">,
  { leastVolts, leastClassCelsius, isLowEsrOnly }: CatalogueReach,
  near: readonly string[],
  bind: readonly unknown[],
): Promise<ReachedParts["refused"]> {
  const all = [...bind, leastVolts, leastClassCelsius, isLowEsrOnly];
  const at = (n: number) => `$${bind.length + n}`;
  const [row] = await sql<ReachedParts["refused"]>(
    `SELECT count(*) FILTER (WHERE c.rated_volts < ${at(1)}::float8)::int AS "voltsCount",
       count(*) FILTER (WHERE c.temperature_class_celsius < ${at(2)}::float8)::int AS "classCount",
       count(*) FILTER (WHERE ${at(3)}::boolean AND c.capacitor_class = 'gp')::int AS "notLowEsrCount"
     FROM catalogue_parts c ${near.length > 0 ? `WHERE ${near.join(" AND ")}` : ""}`,
    all,
  );
  return row ?? { voltsCount: 0, classCount: 0, notLowEsrCount: 0 };
}

export async function cataloguePartsOf({ sql }: Scope, ids: readonly string[]): Promise<CatalogueRow[]> {
  if (ids.length === 0) return [];
  return sql<CatalogueRow>(
    `WITH s AS (${freeCounts}) SELECT ${rowColumns} FROM catalogue_parts c LEFT JOIN s ON s.part_id = c.id
     WHERE c.id = ANY($1::uuid[]) ORDER BY c.id`,
    [ids],
  );
}

export interface CatalogueFilter {
  readonly conditions: readonly string[];
  readonly bind: readonly unknown[];
}

/** A page of the catalogue in the order of value, volts and maker, and how many there are. */
export async function cataloguePage(
  { sql }: Scope,
  { conditions, bind }: CatalogueFilter,
  offset: number,
  limit: number,
): Promise<{ readonly rows: CatalogueRow[]; readonly foundCount: number; readonly totalCount: number }> {
  const where = conditions.length > 0 ? `WHERE ${conditions.join(" AND ")}` : "";
  const from = `FROM catalogue_parts c LEFT JOIN s ON s.part_id = c.id ${where}`;
  const rows = await sql<CatalogueRow>(
    `WITH s AS (${freeCounts}) SELECT ${rowColumns} ${from}
     ORDER BY c.capacitance_farads, c.rated_volts, c.maker, c.series, c.order_code LIMIT ${limit} OFFSET ${offset}`,
    bind,
  );
  const [found] = await sql<{ count: number }>(`WITH s AS (${freeCounts}) SELECT count(*)::int AS count ${from}`, bind);
  const [total] = await sql<{ count: number }>("SELECT count(*)::int AS count FROM catalogue_parts");
  return { rows, foundCount: found?.count ?? 0, totalCount: total?.count ?? 0 };
}
