import type { SeriesLine, SeriesPage, SeriesQuery } from "@pale-cap/contract";
import {
  betaInterval,
  compareShares,
  type Section,
  type SeriesPart,
  seriesKey,
  seriesLife,
  shorterLifeProbability,
  tradeConstants,
} from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { loadRuleValues } from "../records/rules";

const { usualHoursPerDay } = tradeConstants.casebook;

/** Series of which closed jobs tell anything, those seen most first. Other shops' jobs are in no count. */
export async function seriesLines(scope: Scope): Promise<readonly SeriesLine[]> {
  const fewest = (await loadRuleValues(scope))["record.fewest"];
  return (await linesOf(scope, null)).map((row) => withShare(row, fewest));
}

type LineRow = Omit<SeriesLine, "share">;

const withShare = (row: LineRow, fewest: number): SeriesLine => ({
  ...row,
  share: row.foundCount >= fewest ? betaInterval(row.failedCount, row.foundCount) : null,
});

async function linesOf(scope: Scope, key: string | null): Promise<readonly LineRow[]> {
  return scope.sql<LineRow>(
    `WITH own AS (SELECT f.* FROM closed_findings f JOIN closed_jobs c ON c.job_id = f.job_id AND NOT c.is_foreign
       WHERE f.realm = $1),
     told AS (
       SELECT series_key AS key, series AS name, maker, shown <> 'unknown' AS found, shown = 'failed' AS failed, false AS fitted
       FROM own WHERE series_key IS NOT NULL
       UNION ALL
       SELECT fitted_series_key, fitted_series, NULL, false, false, true FROM own WHERE fitted_series_key IS NOT NULL)
     SELECT key AS series, mode() WITHIN GROUP (ORDER BY name) AS name,
       coalesce(array_agg(DISTINCT maker) FILTER (WHERE maker IS NOT NULL), '{}') AS makers,
       count(*) FILTER (WHERE found)::int AS "foundCount", count(*) FILTER (WHERE found AND failed)::int AS "failedCount",
       count(*) FILTER (WHERE fitted)::int AS "fittedCount"
     FROM told WHERE $2::text IS NULL OR key = $2
     GROUP BY key ORDER BY count(*) DESC, key LIMIT 500`,
    [scope.realm, key],
  );
}

/** One series: how long it lives, where, and against another one. */
export async function seriesPage(scope: Scope, query: SeriesQuery): Promise<SeriesPage> {
  const key = seriesKey(query.series ?? "");
  const fewest = (await loadRuleValues(scope))["record.fewest"];
  const [line] = await linesOf(scope, key);
  if (!line) throw new HttpProblem("not_found", "No closed job tells of this series.");
  const parts = await partsOf(scope, key, query);
  const trusted = parts.filter((one) => !one.isApart);
  const againstKey = query.against ? seriesKey(query.against) : null;
  const other = againstKey === null || againstKey === key ? null : (await linesOf(scope, againstKey))[0];
  const otherParts = other ? (await partsOf(scope, other.series, query)).filter((one) => !one.isApart) : [];
  const sections = await scope.sql<{ section: Section }>(
    `SELECT DISTINCT section FROM closed_findings WHERE realm = $1 AND section IS NOT NULL
       AND (series_key = $2 OR fitted_series_key = $2) ORDER BY section`,
    [scope.realm, key],
  );
  return {
    ...withShare(line, fewest),
    life: seriesLife(trusted, fewest),
    sections: sections.map((one) => one.section),
    apart: apartOf(parts),
    lots: lotsOf(parts, fewest),
    against: other
      ? {
          name: other.name,
          shorterProbability: shorterLifeProbability(trusted, otherParts),
          life: seriesLife(otherParts, fewest),
        }
      : null,
    toldHoursCount: trusted.filter((one) => one.isHoursTold).length,
  };
}

interface ToldPart extends SeriesPart {
  readonly isHoursTold: boolean;
  readonly isSalvaged: boolean;
  readonly isSuspect: boolean;
  readonly isApart: boolean;
  readonly lot: string | null;
}

interface PartRow {
  readonly hours: number | null;
  readonly hoursPerDay: number | null;
  readonly hasFailed: boolean;
  readonly fittedDays: number | null;
  readonly origin: string | null;
  readonly lot: string | null;
  readonly isSuspect: boolean;
}

/**
 * Parts of a series: found on boards that were shown to be anything, and fitted here, from then until the unit came back with that
 * place bad, else until now.
 */
async function partsOf(
  scope: Scope,
  key: string,
  { section, warmth }: Pick<SeriesQuery, "section" | "warmth">,
): Promise<readonly ToldPart[]> {
  const where = `f.realm = $1 AND NOT c.is_foreign AND ($3::text IS NULL OR f.section = $3)
    AND ($4::text IS NULL OR f.is_warmed = ($4 = 'warmed'))`;
  const bind = [scope.realm, key, section, warmth];
  const found = await scope.sql<PartRow>(
    `SELECT f.hours, c.hours_per_day AS "hoursPerDay", f.shown = 'failed' AS "hasFailed", NULL::float8 AS "fittedDays",
       NULL AS origin, NULL AS lot, false AS "isSuspect"
     FROM closed_findings f JOIN closed_jobs c ON c.job_id = f.job_id
     WHERE ${where} AND f.series_key = $2 AND f.shown <> 'unknown' AND f.hours > 0 ORDER BY f.job_id, f.position_id`,
    bind,
  );
  const fitted = await scope.sql<PartRow>(
    `SELECT NULL::float8 AS hours, c.hours_per_day AS "hoursPerDay", back.at IS NOT NULL AS "hasFailed",
       extract(epoch FROM coalesce(back.at, $5::timestamptz) - c.closed_at)::float8 / 86400 AS "fittedDays",
       f.fitted_origin AS origin, f.fitted_lot AS lot,
       EXISTS (SELECT 1 FROM stock_items s WHERE s.lot = f.fitted_lot AND s.set_aside_reason IS NOT NULL) AS "isSuspect"
     FROM closed_findings f JOIN closed_jobs c ON c.job_id = f.job_id
     LEFT JOIN LATERAL (SELECT r.created_at AS at FROM jobs r JOIN closed_findings g ON g.job_id = r.id
       WHERE r.comeback_of = f.job_id AND g.designator = f.designator AND g.shown = 'failed'
       ORDER BY r.created_at LIMIT 1) back ON true
     WHERE ${where} AND f.fitted_series_key = $2 AND f.was_replaced AND c.outcome = 'repaired'
       AND coalesce(back.at, $5::timestamptz) > c.closed_at ORDER BY f.job_id, f.position_id`,
    [...bind, scope.now],
  );
  const told = (row: PartRow, origin: SeriesPart["origin"], hours: number): ToldPart => {
    const isSalvaged = row.origin === "salvaged";
    return {
      ...{ origin, hours, hasFailed: row.hasFailed, lot: row.lot, isSalvaged, isSuspect: row.isSuspect },
      isHoursTold: row.hoursPerDay !== null,
      isApart: isSalvaged || row.isSuspect,
    };
  };
  return [
    ...found.map((row) => told(row, "found", row.hours as number)),
    ...fitted.map((row) => told(row, "fitted", (row.fittedDays as number) * (row.hoursPerDay ?? usualHoursPerDay))),
  ];
}

function apartOf(parts: readonly ToldPart[]): SeriesPage["apart"] {
  const groups = new Map<string, SeriesPage["apart"][number]>();
  for (const part of parts.filter((one) => one.isApart)) {
    const what = part.isSalvaged ? "salvaged" : "suspect_lot";
    const lot = part.isSalvaged ? null : part.lot;
    const before = groups.get(`${what} ${lot}`) ?? { what, lot, count: 0, failedCount: 0 };
    groups.set(`${what} ${lot}`, {
      ...before,
      count: before.count + 1,
      failedCount: before.failedCount + Number(part.hasFailed),
    } as SeriesPage["apart"][number]);
  }
  return [...groups.values()];
}

/** Lots that were fitted here, each against all others of the series. */
function lotsOf(parts: readonly ToldPart[], fewest: number): SeriesPage["lots"] {
  const fitted = parts.filter((one) => one.origin === "fitted" && !one.isSalvaged);
  const lots = [...new Set(fitted.map((one) => one.lot))].filter((lot) => lot !== null);
  const counted = (list: readonly ToldPart[]) => ({
    count: list.filter((one) => one.hasFailed).length,
    total: list.length,
  });
  return lots
    .map((lot) => {
      const own = counted(fitted.filter((one) => one.lot === lot));
      const rest = counted(fitted.filter((one) => one.lot !== lot));
      const isWorse =
        own.total >= fewest && rest.total >= fewest && compareShares(own, rest).verdict === "higher" && own.count > 0;
      return { lot, count: own.total, failedCount: own.count, isWorse };
    })
    .sort((a, b) => Number(b.isWorse) - Number(a.isWorse) || b.count - a.count || a.lot.localeCompare(b.lot));
}
