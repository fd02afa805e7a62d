import { foldHouseRules, type HouseRuleChange, jobFacts, jobRules, type RuleEffect } from "@pale-cap/contract";
import { judgeBoard } from "@pale-cap/core";
import type { Transaction } from "sequelize";
import type { Database } from "../database/database";
import { loadJobs } from "./loadJobs";

/** So many open jobs are judged anew for one change; a shop with more has its newest. */
const mostJobs = 200;

/** The verdicts of open jobs that turn when a change comes on top of those before. */
export async function ruleEffects(
  database: Database,
  before: readonly HouseRuleChange[],
  change: HouseRuleChange,
  transaction: Transaction,
): Promise<readonly RuleEffect[]> {
  const [old, next] = [before, [...before, change]].map((all) => jobRules(foldHouseRules(all)).judgement);
  if (!old || !next || JSON.stringify(old) === JSON.stringify(next)) return [];
  const rows = await database.models.jobs.findAll({
    attributes: ["id"],
    where: { handedOverAt: null },
    order: [["number", "DESC"]],
    limit: mostJobs,
    raw: true,
    transaction,
  });
  const ids = rows.map((row) => (row as unknown as { id: string }).id);
  const details = await loadJobs(database, ids, transaction);
  return details.flatMap((detail): RuleEffect[] => {
    const facts = jobFacts(detail);
    const was = judgeBoard(facts, old);
    const turned = [...judgeBoard(facts, next)].flatMap(([positionId, { verdict }]) => {
      const earlier = was.get(positionId)?.verdict ?? "not_measured";
      if (earlier === verdict) return [];
      const designator = detail.positions.find((one) => one.id === positionId)?.designator ?? "?";
      return [{ designator, before: earlier, after: verdict }];
    });
    if (turned.length === 0) return [];
    const { id, number, deviceMaker, deviceModel, deviceKind } = detail.job;
    const name = [deviceMaker, deviceModel].filter(Boolean).join(" ") || deviceKind;
    return [{ jobId: id, jobNumber: number, jobName: name, turned }];
  });
}
