import {
  type FactAnswer,
  type FactBody,
  type FactKind,
  factBatchSchema,
  factKinds,
  factSchemas,
  type Right,
  routes,
} from "@pale-cap/contract";
import type { Request, Response } from "express";
import type { AppContext } from "../../appContext";
import { writeOnce } from "../../http/idempotency";
import { asSentBy } from "../../http/person";
import { toHttpProblem } from "../../http/problems";
import { callerFor, type Route, requireRight, write } from "../../http/route";
import { idParameter, parseBody } from "../../http/validate";
import { type FactHandler, factHandlers } from "../../records/factKinds";
import { holdingJob } from "../../records/holdingJob";
import { requireSeen } from "../../records/seen";
import { markStale } from "../../summaries/markStale";

/** Address and right of each kind of fact. */
const kinds: Readonly<Record<FactKind, { readonly path: string; readonly right: Right }>> = {
  reading: { path: routes.readings, right: "measure" },
  signs: { path: routes.signs, right: "measure" },
  overrule: { path: routes.overrules, right: "overrule" },
  charge: { path: routes.chargeEvents, right: "measure" },
  power: { path: routes.powerEvents, right: "measure" },
  ticks: { path: routes.ticks, right: "rework" },
  return: { path: routes.teardownReturns, right: "rework" },
  act: { path: routes.jobActs, right: "rework" },
  acceptance: { path: routes.acceptances, right: "accept" },
  quote: { path: routes.quotes, right: "take_in" },
  quoteAnswer: { path: routes.quoteAnswers, right: "take_in" },
};

/** What one fact asks for: opening the way to the mains over a gate that is shut is more than telling of a test. */
function rightOf(kind: FactKind, body: object): Right {
  const isGate = kind === "power" && (body as Partial<FactBody<"power">>).kind === "gate_overruled";
  return isGate ? "overrule" : kinds[kind].right;
}

/** A tick also moves parts, which are not only added to. */
const isOnlyAdded = (kind: FactKind) => kind !== "ticks";

function declared<K extends FactKind>(kind: K): Route {
  const handler: FactHandler<K> = factHandlers[kind];
  return write<FactBody<K>>({
    ...kinds[kind],
    method: "post",
    kind,
    creates: true,
    isTakenWhenClosed: true,
    isFact: isOnlyAdded(kind),
    rightFor: (body) => rightOf(kind, body),
    schema: factSchemas[kind],
    write: (scope, { params, body }) => handler.store(scope, params.jobId as string, body),
    answer: (scope, { params, body }) => handler.rows(scope, params.jobId as string, body),
  });
}

/** What happened on the bench: one at its own address, or many of one job at once. */
export function factRoutes(context: AppContext): readonly Route[] {
  return [
    ...factKinds.map((kind) => declared(kind)),
    {
      method: "post",
      path: routes.facts,
      // Each fact asks for its own.
      right: "read",
      kind: "facts",
      handle: (_, request, response) => storeBatch(context, request, response),
    },
  ];
}

/** Each fact in a transaction of its own, in the order given: one that is refused does not keep the others from passing. */
async function storeBatch(context: AppContext, request: Request, response: Response): Promise<void> {
  const jobId = idParameter(request.params.jobId);
  requireRight(request, "read");
  const { facts } = parseBody(factBatchSchema, request.body);
  const answers: FactAnswer[] = [];
  for (const { kind, body } of facts) {
    const { id } = body as { id: string };
    try {
      answers.push({ id, kind, rows: await storeFact(context, request, { kind, jobId, body }) });
    } catch (error) {
      const problem = toHttpProblem(error);
      // What concerns the whole server is the whole batch's answer; what was stored before is told again to a retry.
      // Except what this person may not do: it waits for another, and the others pass.
      if (problem.isForAll && problem.code !== "not_allowed") throw error;
      if (problem.code === "internal") request.log?.error({ err: error }, "a fact failed");
      answers.push({ id, kind, problem: problem.toProblem() });
    }
  }
  context.heavy.poke();
  response.json(answers);
}

async function storeFact<K extends FactKind>(
  { database, turns, now }: AppContext,
  request: Request,
  fact: { readonly kind: K; readonly jobId: string; readonly body: unknown },
): Promise<unknown> {
  const { kind, jobId } = fact;
  const handler: FactHandler<K> = factHandlers[kind];
  const sent = parseBody(factSchemas[kind], fact.body);
  const right = rightOf(kind, sent);
  const who = requireRight(request, right);
  const body = asSentBy(who, sent, right);
  const at = now();
  const caller = callerFor(request, body, at);
  const { result } = await turns.take(`job ${jobId}`, () =>
    database.write(at, caller, (scope) =>
      writeOnce(
        scope,
        { id: sent.id, kind: `${kind} ${jobId}`, jobId, body: sent, bytes: null },
        {
          write: async () => {
            const held = await holdingJob(scope, jobId);
            await requireSeen(held, jobId);
            await handler.store(held, jobId, body);
            await markStale(scope, jobId, isOnlyAdded(kind) ? "fact" : "edit");
          },
          answer: () => handler.rows(scope, jobId, body),
        },
      ),
    ),
  );
  return result;
}
