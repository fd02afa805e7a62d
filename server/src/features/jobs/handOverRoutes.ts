import { type HandOver, handOverSchema, jobFacts, routes } from "@pale-cap/contract";
import { coreVersion, openPoints, outcomeOf, tunedConstants, weightOf } from "@pale-cap/core";
import type { AppContext } from "../../appContext";
import type { Scope } from "../../database/scope";
import { type Judged, judgeJob, markOf } from "../../heavy/judgeJob";
import { HttpProblem } from "../../http/problems";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { factMoment } from "../../records/facts";
import { loadJob } from "../../records/loadJobs";
import { applyLateTicks } from "../../records/reworkActs";
import { loadJobRules, loadRuleValues } from "../../records/rules";
import { releaseJob } from "../../records/stock";

/** Handing over and opening again: each is an event with its own note, from the version of the job that a person saw. */
export const handOverRoutes = ({ heavy }: AppContext): readonly Route[] => [
  write({
    method: "post",
    path: routes.handOver,
    kind: "hand-over",
    right: "hand_over",
    isTakenWhenClosed: true,
    schema: handOverSchema,
    prepare: ({ body, params }) => (body.isReopened ? Promise.resolve(null) : heavy.judgeJob(params.jobId as string)),
    write: (scope, { body, params }, judged) =>
      body.isReopened
        ? reopen(scope, params.jobId as string, body)
        : close(scope, params.jobId as string, body, judged),
    answer: async (scope, { params }) => (await loadJob(scope, params.jobId as string)).job,
  }),
];

async function reopen(scope: Scope, jobId: string, body: HandOver): Promise<void> {
  const reopened = { handedOverAt: null, warrantyUntil: null };
  await updateFromVersion(scope.rows.jobs, { id: jobId, version: body.version }, reopened);
  const last = await scope.rows.jobClosings.first({ jobId, isReopened: false }, [["sequence", "DESC"]]);
  await applyLateTicks(scope, jobId, last?.sequence ?? 0);
  await storeClosing(scope, jobId, body, null);
}

async function close(scope: Scope, jobId: string, body: HandOver, prepared: Judged | null): Promise<void> {
  const isRepaired = await requireEarth(scope, jobId);
  const warrantyUntil = isRepaired ? await warrantyEnd(scope, body) : null;
  const { note: handOverNote, spentMinutes } = body;
  const closed = { handedOverAt: new Date(body.handedOverAt), warrantyUntil, handOverNote, spentMinutes };
  await updateFromVersion(scope.rows.jobs, { id: jobId, version: body.version }, closed);
  await storeClosing(scope, jobId, body, warrantyUntil);
  await releaseJob(scope, jobId);
  // Judged outside before the job was held; what came in between is judged with it here.
  const isCurrent = prepared !== null && prepared.marked === (await markOf(scope, jobId));
  const judged = isCurrent ? prepared : await judgeJob(scope, jobId);
  const { cameAfterClosing: _, ...moment } = await factMoment(scope, body.clockId);
  await scope.rows.judgementSnapshots.insert({
    ...moment,
    id: body.id,
    jobId,
    coreVersion,
    constants: tunedConstants,
    rules: judged.rules,
    readingIds: [...judged.readingIds],
    result: judged.result,
    takenAt: scope.now,
  });
}

/**
 * Nobody accepts an open protective earth: a unit with one leaves as not repaired, or is scrapped.
 *
 * @returns whether the unit leaves as repaired: only then something is promised
 */
async function requireEarth(scope: Scope, jobId: string): Promise<boolean> {
  const facts = jobFacts(await loadJob(scope, jobId));
  const outcome = outcomeOf(facts.acts);
  const points = openPoints(facts, await loadJobRules(scope), scope.now.getTime(), new Map(), null, []);
  const isTagged = outcome === "not_repaired" || outcome === "scrapped";
  if (!isTagged && points.some((point) => weightOf(point.code) === "earth")) {
    throw new HttpProblem(
      "conflict",
      "The protective earth or the insulation is open: the unit can only leave as not repaired, or be scrapped.",
    );
  }
  return outcome === "repaired";
}

async function storeClosing(scope: Scope, jobId: string, body: HandOver, warrantyUntil: string | null): Promise<void> {
  const { id, isReopened, note, spentMinutes, personId, clockId } = body;
  const { cameAfterClosing: _, ...moment } = await factMoment(scope, clockId);
  const at = new Date(body.handedOverAt);
  await scope.rows.jobClosings.insert({
    ...moment,
    id,
    jobId,
    isReopened,
    note,
    warrantyUntil,
    spentMinutes,
    at,
    personId,
  });
}

/** The promise ends on a day of the shop's own calendar. */
async function warrantyEnd(scope: Scope, body: HandOver): Promise<string | null> {
  const { "shop.timeZone": timeZone } = await loadRuleValues(scope);
  const [row] = await scope.sql<{ until: string }>(
    "SELECT ((($1::timestamptz) AT TIME ZONE $3)::date + make_interval(months => $2::int))::date::text AS until",
    [body.handedOverAt, body.warrantyMonths, timeZone],
  );
  return row?.until ?? null;
}
