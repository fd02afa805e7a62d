import { type BenchLine, foldHouseRules, type JobDetail, jobFacts, jobRules, routes } from "@pale-cap/contract";
import { type JobRules, jobChargeState, judgeBoard, lensProgress, lensReached, openPoints } from "@pale-cap/core";
import { type Router as ExpressRouter, Router } from "express";
import type { AppContext } from "../../appContext";
import { loadJobs } from "../../records/loadJobs";
import { loadRuleChanges } from "../../records/ruleChanges";

/** What is on the benches: lens, open points and charge state are drawn from each job's log, not stored. */
export function benchRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  router.get(routes.bench, async (_request, response) => {
    const rows = await database.models.jobs.findAll({
      attributes: ["id"],
      order: [["number", "DESC"]],
      limit: 200,
      raw: true,
    });
    const details = await loadJobs(
      database,
      rows.map((row) => (row as unknown as { id: string }).id),
    );
    const rules = jobRules(foldHouseRules(await loadRuleChanges(database)));
    const lines = details.map((detail) => benchLine(detail, rules, now().getTime()));
    response.json(lines.sort((a, b) => b.number - a.number));
  });
  return router;
}

function benchLine(detail: JobDetail, rules: JobRules, nowMilliseconds: number): BenchLine {
  const { job } = detail;
  const facts = jobFacts(detail);
  const judgements = judgeBoard(facts, rules.judgement);
  const points = openPoints(facts, rules, nowMilliseconds, judgements);
  const charge = jobChargeState(facts, rules.charge, nowMilliseconds);
  return {
    id: job.id,
    number: job.number,
    deviceKind: job.deviceKind,
    deviceMaker: job.deviceMaker,
    deviceModel: job.deviceModel,
    complaint: job.complaint,
    lens: lensReached(lensProgress(facts, rules, nowMilliseconds, judgements, points)),
    openPointCount: points.length,
    chargeName: charge.name,
    chargeVolts: charge.predictedVolts ?? charge.volts,
    chargeAt: charge.at,
    dueOn: job.dueOn,
    createdAt: job.createdAt,
    handedOverAt: job.handedOverAt,
  };
}
