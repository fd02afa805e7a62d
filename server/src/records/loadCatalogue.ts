import type { CatalogueReach, CatalogueRow, ReachedParts, StockedPart } from "@pale-cap/contract";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";

const columns = `c.id, c.maker, c.series, c.capacitor_class AS "capacitorClass", c.capacitance_farads AS "capacitanceFarads",
  c.rated_volts AS "ratedVolts", c.temperature_class_celsius AS "temperatureClassCelsius",
  c.diameter_metres AS "diameterMetres", c.height_metres AS "heightMetres", c.pitch_metres AS "pitchMetres",
  c.esr_ohms AS "esrOhms", c.ripple_amps_rms AS "rippleAmpsRms", c.rated_life_hours AS "ratedLifeHours",
  c.price_minor AS "priceMinor"`;
const rowColumns = `${columns}, c.order_code AS "orderCode", c.printed, c.source`;

/** Beside those expected to last longest: the cheapest, so that every order of the house finds its first line. */
const cheapestCount = 100;

/**
 * What no limit that counts turns down before anything is reckoned, out of the whole catalogue. Where more are within reach than
 * are wanted, those come that should last longest (rated life, class and ripple, as the ranking will weigh them), the
 * cheapest, and every one that lies in a drawer.
 */
export async function reachedParts(scope: Scope, reach: CatalogueReach): Promise<ReachedParts> {
  const { sql } = scope;
  // Translating so short a question to machine code takes longer than answering it.
  await sql("SET LOCAL jit = off");
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
  const where = near.length > 0 ? `WHERE ${near.join(" AND ")}` : "";
  const free = await freeCounts(scope);
  const [volts, celsius] = [bind.push(reach.leastVolts), bind.push(reach.leastClassCelsius)];
  const lowOnly = bind.push(reach.isLowEsrOnly);
  const amps = bind.push(reach.rippleAmps ?? 0);
  const stocked = bind.push([...free.keys()]);
  const found = await sql<Partial<Omit<StockedPart, "stockCount">> & Counts>(
    `WITH near AS MATERIALIZED (
       SELECT c.id, c.price_minor, coalesce(c.rated_volts < $${volts}::float8, false) AS is_low_volts,
         coalesce(c.temperature_class_celsius < $${celsius}::float8, false) AS is_low_class,
         $${lowOnly}::boolean AND c.capacitor_class = 'gp' AS is_not_low_esr,
         ln(c.rated_life_hours) + ln(2) / 10 *
           (c.temperature_class_celsius - 5 * ($${amps}::float8 / c.ripple_amps_rms) ^ 2) AS endurance
       FROM catalogue_parts c ${where}),
     fit AS MATERIALIZED (SELECT * FROM near WHERE NOT (is_low_volts OR is_low_class OR is_not_low_esr)),
     counts AS (
       SELECT count(*) FILTER (WHERE is_low_volts)::int AS "voltsCount",
         count(*) FILTER (WHERE is_low_class)::int AS "classCount",
         count(*) FILTER (WHERE is_not_low_esr)::int AS "notLowEsrCount",
         (SELECT count(*)::int FROM fit) AS "withinCount" FROM near),
     wanted AS (
       (SELECT id FROM fit ORDER BY endurance DESC, id LIMIT ${reach.mostCount})
       UNION (SELECT id FROM fit ORDER BY price_minor, id LIMIT ${cheapestCount})
       UNION (SELECT id FROM fit WHERE id = ANY($${stocked}::uuid[])))
     SELECT ${columns}, counts.* FROM counts LEFT JOIN wanted ON true LEFT JOIN catalogue_parts c ON c.id = wanted.id
     ORDER BY c.id`,
    bind,
  );
  const [total] = await sql<{ count: number }>("SELECT count(*)::int AS count FROM catalogue_parts");
  const { voltsCount, classCount, notLowEsrCount, withinCount } = found[0] as Counts;
  const parts = found.flatMap(({ voltsCount: _, classCount: __, notLowEsrCount: ___, withinCount: ____, ...part }) =>
    part.id == null ? [] : [{ ...(part as StockedPart), stockCount: free.get(part.id) ?? 0 }],
  );
  return {
    ...{ parts, totalCount: total?.count ?? 0, isCut: withinCount > parts.length },
    refused: { voltsCount, classCount, notLowEsrCount },
  };
}

type Counts = ReachedParts["refused"] & { readonly withinCount: number };

/** Free pieces in drawers of every catalogue part that has any. */
async function freeCounts({ sql }: Scope): Promise<ReadonlyMap<string, number>> {
  const rows = await sql<{ id: string; free: number }>(
    `SELECT i.catalogue_part_id AS id, sum(m.count_delta - m.reserved_delta)::int AS free
     FROM stock_items i JOIN stock_movements m ON m.item_id = i.id
     WHERE i.catalogue_part_id IS NOT NULL AND i.set_aside_reason IS NULL
     GROUP BY 1 HAVING sum(m.count_delta - m.reserved_delta) > 0`,
  );
  return new Map(rows.map((one) => [one.id, one.free]));
}

export async function cataloguePartsOf(scope: Scope, ids: readonly string[]): Promise<CatalogueRow[]> {
  if (ids.length === 0) return [];
  const rows = await scope.sql<Omit<CatalogueRow, "stockCount">>(
    `SELECT ${rowColumns} FROM catalogue_parts c WHERE c.id = ANY($1::uuid[]) ORDER BY c.id`,
    [ids],
  );
  return withFree(scope, rows);
}

async function withFree(scope: Scope, rows: readonly Omit<CatalogueRow, "stockCount">[]): Promise<CatalogueRow[]> {
  const free = await freeCounts(scope);
  return rows.map((one) => ({ ...one, stockCount: free.get(one.id) ?? 0 }));
}

export interface CatalogueFilter {
  readonly conditions: readonly string[];
  readonly bind: readonly unknown[];
  readonly isInDrawer: boolean;
}

/** A page of the catalogue in the order of value, volts and maker, and how many there are. */
export async function cataloguePage(
  scope: Scope,
  filter: CatalogueFilter,
  offset: number,
  limit: number,
): Promise<{ readonly rows: CatalogueRow[]; readonly foundCount: number; readonly totalCount: number }> {
  const { sql } = scope;
  const bind = [...filter.bind];
  const conditions = [...filter.conditions];
  if (filter.isInDrawer) conditions.push(`c.id = ANY($${bind.push([...(await freeCounts(scope)).keys()])}::uuid[])`);
  const from = `FROM catalogue_parts c ${conditions.length > 0 ? `WHERE ${conditions.join(" AND ")}` : ""}`;
  const rows = await sql<Omit<CatalogueRow, "stockCount">>(
    `SELECT ${rowColumns} ${from}
     ORDER BY c.capacitance_farads, c.rated_volts, c.maker, c.series, c.order_code LIMIT ${limit} OFFSET ${offset}`,
    bind,
  );
  const [found] = await sql<{ count: number }>(`SELECT count(*)::int AS count ${from}`, bind);
  const [total] = await sql<{ count: number }>("SELECT count(*)::int AS count FROM catalogue_parts");
  return { rows: await withFree(scope, rows), foundCount: found?.count ?? 0, totalCount: total?.count ?? 0 };
}

export async function requireCataloguePart(scope: Scope, id: string): Promise<void> {
  if (await scope.rows.catalogueParts.has({ id })) return;
  throw new HttpProblem("conflict", "This part is not in the catalogue any more. Nothing was stored.");
}
