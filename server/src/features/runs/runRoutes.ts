import { randomUUID } from "node:crypto";
import {
  type NewRun,
  newRunSchema,
  type RunWord,
  routes,
  runSamplesQuerySchema,
  runWordSchema,
} from "@pale-cap/contract";
import { isRunOver, planInstruments, runState } from "@pale-cap/core";
import type { AppContext } from "../../appContext";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { type Route, read, write } from "../../http/route";
import { requireOwnInstruments } from "../../instruments/ownBench";
import { loadRunSamples, loadRuns } from "../../records/loadRuns";
import type { PreparedRig } from "../../runs/runRig";

/** Runs that the instruments drive: begun, told, and looked at. */
export function runRoutes(context: AppContext): readonly Route[] {
  const { runs, now } = context;
  const begin = write<NewRun, PreparedRig | null>({
    method: "post",
    path: routes.runs,
    kind: "run",
    right: "measure",
    creates: true,
    schema: newRunSchema,
    prepare: async ({ body, params }, caller) => {
      await requireOwnInstruments(context, caller, planInstruments(body.plan));
      return runs.prepare(params.jobId as string, body);
    },
    write: async (scope, { body, params }, ready) => {
      if (!ready) throw new HttpProblem("conflict", "This run is being begun already.");
      await storeRun(scope, params.jobId as string, body, ready);
    },
    answer: async (scope, { body, params }) =>
      (await loadRuns(scope, params.jobId as string)).find((one) => one.id === body.id),
  });
  async function storeRun(scope: Scope, jobId: string, body: NewRun, ready: PreparedRig): Promise<void> {
    // Before the mains goes on, and before a load is put on a unit that is on already.
    await runs.requireGateOpen(scope, jobId);
    if (body.switchesMains && body.plan.mainsId === null) {
      throw new HttpProblem("conflict", "No instrument of this run switches the mains: switch it on by hand first.");
    }
    if (!body.switchesMains && ready.isMainsOn === false) {
      throw new HttpProblem("conflict", "The mains source says that it is off.");
    }
    const { id, plan, personId, isCaseClosed } = body;
    const { isAttendedOnly, isSimulated, isIsolationTransformer } = ready;
    await scope.rows.proofRuns.insert({
      ...{
        id,
        jobId,
        plan,
        personId,
        isAttendedOnly,
        isSimulated,
        rig: { isIsolationTransformer, isCaseClosed },
        begunAt: now(),
      },
    });
    const event = { kind: "begun" as const, seconds: 0, step: null, stop: null, personId };
    await scope.rows.proofRunEvents.insert({ ...event, id: randomUUID(), runId: id, at: now() });
  }
  return [
    {
      ...begin,
      handle: async (app, request, response) => {
        const { id, switchesMains } = (request.body ?? {}) as Partial<NewRun>;
        if (typeof id !== "string") return begin.handle(app, request, response);
        // One after the other: a press that is sent again must not touch what the first one set.
        await app.turns.take(`run ${id}`, async () => {
          try {
            await begin.handle(app, request, response);
            await runs.begin(id, switchesMains === true);
          } finally {
            // Where it was refused after all, what was prepared for it is free again.
            await runs.discard(id);
          }
        });
      },
    },
    write<{ id: string; word: RunWord; personId: string | null }>({
      method: "post",
      path: routes.runWords,
      kind: "run word",
      right: "measure",
      schema: runWordSchema,
      // Stopping waits for nothing, also where it cannot be stored.
      prepare: async ({ body, params }) => {
        if (body.word === "cancel") runs.cancel(params.runId as string);
      },
      write: async (scope, { body, params }) => {
        const runId = params.runId as string;
        const run = (await loadRuns(scope, params.jobId as string)).find((one) => one.id === runId);
        if (!run) throw new HttpProblem("not_found", "There is no such run on this job.");
        if (isRunOver(runState(run.events).name)) throw new HttpProblem("conflict", "This run is over.");
        const event = {
          kind: `asked_to_${body.word}` as const,
          seconds: secondsOf(run.begunAt),
          step: null,
          stop: null,
        };
        await scope.rows.proofRunEvents.insert({
          ...{ ...event, id: body.id, runId, personId: body.personId, at: now() },
        });
      },
      answer: async (scope, { params }) =>
        (await loadRuns(scope, params.jobId as string)).find((one) => one.id === params.runId),
      after: () => runs.wakeAll(),
    }),
    read({ path: routes.runs, right: "read", read: (scope, { params }) => loadRuns(scope, params.jobId as string) }),
    read({
      path: routes.runSamples,
      right: "read",
      schema: runSamplesQuerySchema,
      query: (query) => (query.after === undefined ? {} : { after: Number(query.after) }),
      read: (scope, { params, body }) =>
        loadRunSamples(scope, params.jobId as string, params.runId as string, body.after ?? -1),
    }),
  ];
  function secondsOf(begunAt: string): number {
    return Math.max(0, (now().getTime() - Date.parse(begunAt)) / 1000);
  }
}
