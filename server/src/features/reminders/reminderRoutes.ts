import { type ReminderRow, routes } from "@pale-cap/contract";
import { isRunOver, type JobAct, jobReminders, runSeconds, runState } from "@pale-cap/core";
import type { Scope } from "../../database/scope";
import { type Route, read } from "../../http/route";
import { grouped, onWire } from "../../records/loadJobs";
import { loadRunsOf } from "../../records/loadRuns";
import { loadRuleValues } from "../../records/rules";

/** What the open jobs want somebody to think of: calls, glue, long runs, promised days. */
export const reminderRoutes = (): readonly Route[] => [
  read({ path: routes.reminders, right: "read", read: (scope) => reminders(scope) }),
];

interface OpenJob {
  readonly id: string;
  readonly number: number;
  readonly deviceKind: string;
  readonly deviceMaker: string | null;
  readonly deviceModel: string | null;
  /** The promised day as it begins in the shop. */
  readonly dueAt: Date | null;
}

async function reminders(scope: Scope): Promise<readonly ReminderRow[]> {
  const { "shop.timeZone": timeZone } = await loadRuleValues(scope);
  const jobs = await scope.sql<OpenJob>(
    `SELECT id, number, device_kind AS "deviceKind", device_maker AS "deviceMaker", device_model AS "deviceModel",
       due_on::timestamp AT TIME ZONE $2 AS "dueAt"
     FROM jobs WHERE realm = $1 AND handed_over_at IS NULL ORDER BY number`,
    [scope.realm, timeZone],
  );
  const ids = jobs.map((one) => one.id);
  const acts = onWire(
    await scope.rows.jobActs.all({ jobId: ids, kind: ["call_back", "glue_set"] }, [["sequence", "ASC"]]),
  ) as readonly (JobAct & { readonly jobId: string })[];
  const places = await scope.rows.positions.all({ id: acts.flatMap((one) => one.subjectId ?? []) }, [["id", "ASC"]]);
  const runs = grouped(await loadRunsOf(scope, ids, "burn_in"), (one) => one.jobId);
  const actsOf = grouped(acts, (one) => one.jobId);
  return jobs.flatMap(({ id, number, dueAt, ...device }) =>
    jobReminders({
      acts: actsOf.get(id) ?? [],
      runEndsMilliseconds: (runs.get(id) ?? []).map(({ plan, begunAt, events }) => {
        const last = events.at(-1);
        const isOver = isRunOver(runState(events).name);
        return isOver && last ? Date.parse(last.at) : Date.parse(begunAt) + 1000 * runSeconds(plan);
      }),
      dueMilliseconds: dueAt?.getTime() ?? null,
      nowMilliseconds: scope.now.getTime(),
    }).map(({ kind, note, positionId, atMilliseconds }) => ({
      ...{ jobId: id, jobNumber: number, ...device, kind, note, at: new Date(atMilliseconds).toISOString() },
      designator: places.find((one) => one.id === positionId)?.designator ?? null,
    })),
  );
}
