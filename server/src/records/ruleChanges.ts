import type { ToldRuleChange } from "@pale-cap/contract";
import type { Database } from "../database/database";

/** What the shop changed, oldest first. */
export async function loadRuleChanges(database: Database): Promise<readonly ToldRuleChange[]> {
  const rows = await database.models.houseRuleChanges.findAll({ order: [["changedAt", "ASC"]], raw: true });
  return rows as unknown as ToldRuleChange[];
}
