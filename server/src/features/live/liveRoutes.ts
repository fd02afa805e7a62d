import { randomUUID } from "node:crypto";
import {
  type AddedList,
  addedLists,
  type JobChanges,
  type JobDetail,
  type JobStreamEvent,
  jobChangesQuerySchema,
  routes,
} from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { live, type Route, read } from "../../http/route";
import { Presences } from "../../live/presence";
import { whoOf } from "../../people/who";
import { loadAdded, loadJob } from "../../records/loadJobs";

/** What others do on a job: that something came, what it was, and who is there. */
export function liveRoutes({ database, changes, streams, sessions, now }: AppContext): readonly Route[] {
  const presences = new Presences(database, now);
  return [
    live({
      method: "get",
      path: routes.jobStream,
      right: "read",
      live: async (request, response, { params }) => {
        const jobId = params.jobId as string;
        const who = whoOf(request);
        const isThere = await database.read(now(), ({ rows }) => rows.jobs.has({ id: jobId }));
        if (!isThere) throw new HttpProblem("not_found", "There is no job with this id.");
        const ends: (() => void)[] = [];
        const onEnd = () => {
          for (const end of ends) end();
        };
        const send = streams.begin(request, response, onEnd, sessions) as (event: JobStreamEvent) => void;
        const tellPresent = () =>
          void presences.of(jobId).then(
            (people) => send({ kind: "present", people }),
            () => undefined,
          );
        ends.push(
          changes.listen(jobId, {
            changed: (sequence) => send({ kind: "changed", sequence }),
            present: tellPresent,
            rules: () => send({ kind: "rules" }),
            missed: () => {
              send({ kind: "missed" });
              tellPresent();
            },
          }),
        );
        // What came while the page had no stream.
        send({ kind: "missed" });
        if (who?.personId) ends.push(presences.enter(randomUUID(), jobId, who.personId, who.benchId));
        else tellPresent();
      },
    }),
    read({
      path: routes.jobChanges,
      right: "read",
      schema: jobChangesQuerySchema,
      query: ({ after }) => ({ after: Number(after) }),
      read: (scope, { params, body }) => jobChanges(scope, params.jobId as string, body.after),
    }),
  ];
}

async function jobChanges(scope: Scope, jobId: string, after: number): Promise<JobChanges> {
  const [job] = await scope.sql<{ changed: number }>(
    "SELECT changed_sequence AS changed FROM jobs WHERE id = $1 AND realm = ANY ($2)",
    [jobId, [scope.realm, "practice"]],
  );
  if (!job) throw new HttpProblem("not_found", "There is no job with this id.");
  const added = await loadAdded(scope, jobId, after);
  const places = addedLists.flatMap((list) => added[list].map((one) => one.sequence ?? 0));
  const rest = job.changed > after ? withoutAdded(await loadJob(scope, jobId)) : null;
  return { sequence: Math.max(after, job.changed, ...places), added, rest };
}

function withoutAdded(detail: JobDetail): Omit<JobDetail, AddedList> {
  return Object.fromEntries(
    Object.entries(detail).filter(([name]) => !(addedLists as readonly string[]).includes(name)),
  ) as Omit<JobDetail, AddedList>;
}
