import { foldHouseRules, type HouseRuleValues, jobRules } from "@pale-cap/contract";
import type { JobRules } from "@pale-cap/core";
import type { HouseRuleChangeRow } from "../database/models/houseRuleChanges";
import type { Scope } from "../database/scope";

/** What the shop changed, in the order in which it was stored. */
export function loadRuleChanges(scope: Scope): Promise<readonly HouseRuleChangeRow[]> {
  return scope.rows.houseRuleChanges.all({}, [["sequence", "ASC"]]);
}

export async function loadRuleValues(scope: Scope): Promise<HouseRuleValues> {
  return foldHouseRules(await loadRuleChanges(scope));
}

export async function loadJobRules(scope: Scope): Promise<JobRules> {
  return jobRules(await loadRuleValues(scope));
}
