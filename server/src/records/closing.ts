import { type HandOver, type Job, jobFacts } from "@pale-cap/contract";
import { openPoints, outcomeOf, shopDayOf, warrantyEnd, warrantyState, weightOf } from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { loadJob } from "./loadJobs";
import type { Closing } from "./loadReportInput";
import { loadJobRules, loadRuleValues } from "./rules";

/**
 * How a job stands once it is closed so: nobody accepts an open protective earth, and only what leaves as repaired promises anything.
 *
 * @throws {HttpProblem} where the earth is open and the unit would leave as if it were not
 */
export async function closingOf(scope: Scope, jobId: string, body: HandOver): Promise<Closing> {
  const detail = await loadJob(scope, jobId);
  const facts = jobFacts(detail);
  const outcome = outcomeOf(facts.acts);
  const points = openPoints(facts, await loadJobRules(scope), scope.now.getTime(), new Map(), null, []);
  const isTagged = outcome === "not_repaired" || outcome === "scrapped";
  if (!isTagged && points.some((point) => weightOf(point.code) === "earth")) {
    throw new HttpProblem(
      "conflict",
      "The protective earth or the insulation is open: the unit can only leave as not repaired, or be scrapped.",
    );
  }
  const { handedOverAt, spentMinutes, note: handOverNote } = body;
  const warrantyUntil = outcome === "repaired" ? await promisedUntil(scope, detail.job, body) : null;
  return { handedOverAt, spentMinutes, handOverNote, warrantyUntil };
}

/** The promise ends on a day of the shop's calendar; one that ran when the unit came back goes on. */
async function promisedUntil(scope: Scope, job: Job, body: HandOver): Promise<string> {
  const { "shop.timeZone": timeZone } = await loadRuleValues(scope);
  const former = job.comebackOf ? await scope.rows.jobs.first({ id: job.comebackOf }) : null;
  const until = former?.warrantyUntil ?? null;
  const cameInOn = shopDayOf(job.createdAt, timeZone);
  const isCovered = warrantyState(until, cameInOn, job.comebackKind ?? "unknown") === "covers";
  const running = isCovered && until !== null ? { until, cameInOn } : null;
  return warrantyEnd(shopDayOf(body.handedOverAt, timeZone), body.warrantyMonths, running);
}
