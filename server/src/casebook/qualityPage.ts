import type { QualityPage } from "@pale-cap/contract";
import { betaInterval, calibration, median, percentile, type TestWorth } from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { loadRuleValues } from "../records/rules";

/**
 * How well the shop judges, by its own closed jobs: chances that were told in circuit against what the parts' own numbers showed off
 * the board, overrules, tests, and minutes.
 *
 * @param personId of one person's jobs alone; null: of all
 */
export async function qualityPage(scope: Scope, personId: string | null): Promise<QualityPage> {
  const fewest = (await loadRuleValues(scope))["record.fewest"];
  const own = "c.realm = $1 AND NOT c.is_foreign AND ($2::uuid IS NULL OR c.person_id = $2)";
  const bind = [scope.realm, personId];
  const said = await scope.sql<{ probability: number; isTrue: boolean }>(
    `SELECT f.said_probability AS probability, f.shown = 'failed' AS "isTrue"
     FROM closed_findings f JOIN closed_jobs c ON c.job_id = f.job_id
     WHERE ${own} AND f.said_probability IS NOT NULL AND f.shown_by = 'own_reading' ORDER BY f.job_id, f.position_id`,
    bind,
  );
  const held = said.length === 0 ? null : calibration(said);
  const overrules = await scope.sql<QualityPage["overrules"][number]>(
    `SELECT f.computed_verdict AS computed, f.overruled_verdict AS said,
       count(*) FILTER (WHERE f.shown_by IN ('own_reading', 'test') AND f.shown = f.overruled_verdict)::int AS "rightCount",
       count(*) FILTER (WHERE f.shown_by IN ('own_reading', 'test') AND f.shown <> f.overruled_verdict)::int AS "wrongCount",
       count(*) FILTER (WHERE f.shown_by IS NULL OR f.shown_by NOT IN ('own_reading', 'test'))::int AS "openCount"
     FROM closed_findings f JOIN closed_jobs c ON c.job_id = f.job_id
     WHERE ${own} AND f.overruled_verdict IS NOT NULL AND f.overruled_verdict IS DISTINCT FROM f.computed_verdict
     GROUP BY f.computed_verdict, f.overruled_verdict ORDER BY count(*) DESC, 1, 2`,
    bind,
  );
  const jobs = await scope.sql<{ tests: readonly TestWorth[]; spent: number | null; quoted: number | null }>(
    `SELECT c.tests, c.spent_minutes AS spent, c.quoted_minutes AS quoted FROM closed_jobs c WHERE ${own} ORDER BY c.number`,
    bind,
  );
  const [returns] = await scope.sql<{ count: number; total: number }>(
    `SELECT count(*)::int AS total, count(*) FILTER (WHERE EXISTS (SELECT 1 FROM jobs r WHERE r.comeback_of = c.job_id
       AND coalesce(r.comeback_kind, 'same_fault') = 'same_fault'))::int AS count
     FROM closed_jobs c WHERE ${own} AND c.outcome = 'repaired'`,
    bind,
  );
  const { count = 0, total = 0 } = returns ?? {};
  const ratios = jobs.flatMap(({ spent, quoted }) => (spent && quoted ? [spent / quoted] : []));
  return {
    calibration: held,
    bins:
      held?.bins.map((bin) =>
        bin.count >= fewest ? betaInterval(Math.round(bin.count * (bin.trueRatio ?? 0)), bin.count) : null,
      ) ?? [],
    overrules,
    tests: testsOf(
      jobs.flatMap((one) => one.tests),
      fewest,
    ),
    minutes:
      ratios.length >= fewest
        ? {
            ...{ medianRatio: median(ratios), count: ratios.length },
            ...{ lowRatio: percentile(ratios, 0.1), highRatio: percentile(ratios, 0.9) },
          }
        : null,
    minutesCount: ratios.length,
    comebacks: { count, total, share: total >= fewest ? betaInterval(count, total) : null },
    jobCount: jobs.length,
    fewestCount: fewest,
  };
}

/** Tests that were done often enough, by what they told of the cause on the mean. */
function testsOf(worths: readonly TestWorth[], fewest: number): QualityPage["tests"] {
  const bits = new Map<string, number[]>();
  for (const one of worths) bits.set(one.finding, [...(bits.get(one.finding) ?? []), one.bits]);
  return [...bits]
    .filter(([, list]) => list.length >= fewest)
    .map(([finding, list]) => ({
      ...{ finding, count: list.length },
      meanBits: list.reduce((sum, one) => sum + one, 0) / list.length,
    }))
    .sort((a, b) => b.meanBits - a.meanBits || a.finding.localeCompare(b.finding));
}
