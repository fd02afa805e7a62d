import { type HandOver, handOverSchema, routes } from "@pale-cap/contract";
import { coreVersion, tunedConstants } from "@pale-cap/core";
import type { AppContext } from "../../appContext";
import type { Scope } from "../../database/scope";
import type { PreparedHandOver } from "../../heavy/heavyWork";
import { judgeJob, markOf } from "../../heavy/judgeJob";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { closingOf } from "../../records/closing";
import { factMoment } from "../../records/facts";
import { loadJob } from "../../records/loadJobs";
import { loadReportInput } from "../../records/loadReportInput";
import { applyLateTicks } from "../../records/reworkActs";
import { releaseJob } from "../../records/stock";
import { drawReports } from "../../reports/drawReport";
import { storeReports } from "../../reports/storeReports";

/** Handing over and opening again: each is an event with its own note, from the version of the job that a person saw. */
export const handOverRoutes = ({ heavy }: AppContext): readonly Route[] => [
  write({
    method: "post",
    path: routes.handOver,
    kind: "hand-over",
    right: "hand_over",
    isTakenWhenClosed: true,
    schema: handOverSchema,
    prepare: ({ body, params }) =>
      body.isReopened ? Promise.resolve(null) : heavy.prepareHandOver(params.jobId as string, body),
    write: (scope, { body, params }, prepared) =>
      body.isReopened
        ? reopen(scope, params.jobId as string, body)
        : close(scope, params.jobId as string, body, prepared),
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

async function close(scope: Scope, jobId: string, body: HandOver, prepared: PreparedHandOver | null): Promise<void> {
  const closing = await closingOf(scope, jobId, body);
  // Judged and drawn outside before the job was held; what came in between is judged and drawn with it here.
  const isCurrent = prepared !== null && prepared.judged.marked === (await markOf(scope, jobId));
  const judged = isCurrent ? prepared.judged : await judgeJob(scope, jobId);
  const documents = isCurrent ? prepared.documents : drawReports(await loadReportInput(scope, jobId, closing));
  const closed = { ...closing, handedOverAt: new Date(closing.handedOverAt) };
  await updateFromVersion(scope.rows.jobs, { id: jobId, version: body.version }, closed);
  await storeClosing(scope, jobId, body, closing.warrantyUntil);
  await releaseJob(scope, jobId);
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
  await storeReports(scope, { jobId, closingId: body.id, documents });
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
