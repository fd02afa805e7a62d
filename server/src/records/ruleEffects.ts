import { foldHouseRules, type HouseRuleChange, jobFacts, jobRules, type RuleEffect } from "@pale-cap/contract";
import { judgeBoard, roundView } from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { loadJobs } from "./loadJobs";
import { loadRuleChanges } from "./rules";

/** So many open jobs are loaded at once. */
const jobsAtOnce = 20;

/** The verdicts of all open jobs that turn when a change comes on top of those before, the newest job first. */
export async function ruleEffects(scope: Scope, change: HouseRuleChange): Promise<readonly RuleEffect[]> {
  const before = await loadRuleChanges(scope);
  const [old, next] = [before, [...before, change]].map((all) => jobRules(foldHouseRules(all)).judgement);
  if (!old || !next || JSON.stringify(old) === JSON.stringify(next)) return [];
  const open = await scope.rows.jobs.all({ handedOverAt: null, realm: scope.realm }, [["number", "DESC"]]);
  const effects: RuleEffect[] = [];
  for (let from = 0; from < open.length; from += jobsAtOnce) {
    const details = await loadJobs(
      scope,
      open.slice(from, from + jobsAtOnce).map((job) => job.id),
    );
    for (const detail of [...details].reverse()) {
      const facts = roundView(jobFacts(detail));
      const was = judgeBoard(facts, old);
      const turned = [...judgeBoard(facts, next)].flatMap(([positionId, { verdict }]) => {
        const earlier = was.get(positionId)?.verdict ?? "not_measured";
        if (earlier === verdict) return [];
        const designator = detail.positions.find((one) => one.id === positionId)?.designator ?? "?";
        return [{ designator, before: earlier, after: verdict }];
      });
      if (turned.length === 0) continue;
      const { id, number, deviceMaker, deviceModel, deviceKind } = detail.job;
      const name = [deviceMaker, deviceModel].filter(Boolean).join(" ") || deviceKind;
      effects.push({ jobId: id, jobNumber: number, jobName: name, turned });
    }
  }
  return effects;
}
