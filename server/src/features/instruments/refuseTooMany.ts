import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { loadRuleValues } from "../../records/rules";

/** Each instrument keeps a line open: a house rule says how many. */
export async function refuseTooMany(scope: Scope, more = 1): Promise<void> {
  const most = (await loadRuleValues(scope))["instruments.mostCount"];
  // Those of practice jobs come and go with them.
  const [{ count = 0 } = {}] = await scope.sql<{ count: number }>(
    `SELECT count(*)::int AS count FROM instruments i JOIN benches b ON b.id = i.bench_id
     WHERE NOT i.is_removed AND b.practice_job_id IS NULL`,
  );
  if (count + more <= most) return;
  throw new HttpProblem("conflict", `There are ${count} instruments already; the house rule allows ${most}.`);
}
