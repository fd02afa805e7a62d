import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { loadRuleValues } from "../../records/rules";

/** Each instrument keeps a line open: a house rule says how many. */
export async function refuseTooMany(scope: Scope, more = 1): Promise<void> {
  const most = (await loadRuleValues(scope))["instruments.mostCount"];
  const count = await scope.rows.instruments.count({ isRemoved: false });
  if (count + more <= most) return;
  throw new HttpProblem("conflict", `There are ${count} instruments already; the house rule allows ${most}.`);
}
