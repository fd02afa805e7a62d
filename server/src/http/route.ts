import { clockHeaders, type Right } from "@pale-cap/contract";
import type { Express, Request, Response } from "express";
import type { AnyObject, ObjectSchema } from "yup";
import type { AppContext } from "../appContext";
import { type Caller, noCaller, type Scope } from "../database/scope";
import { type Who, whoOf } from "../people/who";
import { holdingJob } from "../records/holdingJob";
import { requireSeen } from "../records/seen";
import { markStale } from "../summaries/markStale";
import { type ClientWrite, writeOnce } from "./idempotency";
import { asSentBy, personOf, type RouteRight } from "./person";
import { HttpProblem } from "./problems";
import { clockKeeper, requestClock } from "./requestClock";
import { idParameter, parseBody } from "./validate";

/** What a handler is given of a request: the body as its schema says, the ids of the address, and a file where one came. */
export interface Input<Body> {
  readonly body: Body;
  readonly params: Readonly<Record<string, string>>;
  readonly bytes: Buffer | null;
}

interface Declared {
  readonly path: string;
  readonly right: RouteRight;
}

/** A route that changes something: one transaction, done once for its id, whatever happens on the way. */
export interface WriteRoute<Body extends AnyObject, Prepared, Result> extends Declared {
  readonly method: "post" | "put" | "patch" | "delete";
  /** Names the kind of write: an id that was used for one may not travel to another. */
  readonly kind: string;
  readonly schema: ObjectSchema<Body>;
  /** What this body asks for beyond the route's right. */
  readonly rightFor?: (body: Body) => Right;
  /** Answers 201 the first time. */
  readonly creates?: boolean;
  /** Also where the job is closed: facts are kept, and it can be opened again. Anything else is refused. */
  readonly isTakenWhenClosed?: boolean;
  /** It only adds to what is told by its place in the order: others of the job fetch that alone. */
  readonly isFact?: boolean;
  /** Which rows must be written one after the other: a job by default, else all writes of the kind. */
  readonly lock?: (input: Input<Body>) => string;
  /** Takes the body and its file out of a form. */
  readonly receive?: (request: Request, response: Response) => Promise<{ about: Body; bytes: Buffer }>;
  /** Heavy work and foreign lines, before any connection is held. */
  readonly prepare?: (input: Input<Body>, caller: Caller) => Promise<Prepared>;
  readonly write: (scope: Scope, input: Input<Body>, prepared: Prepared) => Promise<void>;
  /** What is answered, the first time and to a retry. */
  readonly answer: (scope: Scope, input: Input<Body>) => Promise<Result>;
  /** After the commit; a failure here is nobody's refusal. */
  readonly after?: (input: Input<Body>) => void | Promise<void>;
}

/** A route that only reads: one consistent picture. */
export interface ReadRoute<Query extends AnyObject, Result> extends Declared {
  readonly schema?: ObjectSchema<Query>;
  /** What the address says behind its question mark, as the schema takes it. */
  readonly query?: (query: Readonly<Record<string, unknown>>) => unknown;
  readonly read: (scope: Scope, input: Input<Query>) => Promise<Result>;
  /** Sends something other than JSON. */
  readonly send?: (response: Response, result: Result) => Promise<void>;
}

/** A route that neither reads nor writes the database: streams and acts on instruments. */
export interface LiveRoute<Body extends AnyObject> extends Declared {
  readonly method: "get" | "post" | "put" | "delete";
  readonly schema?: ObjectSchema<Body>;
  readonly live: (request: Request, response: Response, input: Input<Body>) => Promise<void> | void;
}

export interface Route {
  readonly method: "get" | "post" | "put" | "patch" | "delete";
  readonly path: string;
  readonly right: RouteRight;
  readonly kind: string;
  handle(context: AppContext, request: Request, response: Response): Promise<void>;
}

/**
 * @returns who asks
 * @throws {HttpProblem} where nobody is signed in, or who is may not do this
 */
export function requireRight(request: Request, right: Right): Who {
  const who = whoOf(request);
  if (!who) throw new HttpProblem("not_signed_in", "Sign in first. Nothing was changed.");
  if (!who.rights.includes(right)) {
    throw new HttpProblem(
      "not_allowed",
      who.by === "pin"
        ? "Your role does not allow this, or it wants your password instead of a PIN. Nothing was changed."
        : "Your role does not allow this. Nothing was changed.",
    );
  }
  return who;
}

const admitted = (request: Request, right: RouteRight): Who | null =>
  right === "anybody" ? whoOf(request) : requireRight(request, right);

/** Alone nobody is told apart, and nothing is asked. */
async function requireSeenBy(context: AppContext, request: Request, jobId: string): Promise<void> {
  if (!whoOf(request)?.accountId) return;
  const now = context.now();
  await context.database.read(now, (scope) => requireSeen(scope, jobId), callerFor(request, null, now));
}

function paramsOf(request: Request): Readonly<Record<string, string>> {
  return Object.fromEntries(Object.entries(request.params).map(([name, value]) => [name, idParameter(value)]));
}

export function write<Body extends AnyObject, Prepared = undefined, Result = unknown>(
  declared: WriteRoute<Body, Prepared, Result>,
): Route {
  const { method, path, right, kind, schema } = declared;
  return {
    method,
    path,
    right,
    kind,
    handle: async (context, request, response) => {
      const who = admitted(request, right);
      const params = paramsOf(request);
      const received = declared.receive
        ? await declared.receive(request, response)
        : { about: parseBody(schema, request.body), bytes: null };
      const asked = declared.rightFor?.(received.about);
      if (asked) requireRight(request, asked);
      const body = asSentBy(who, received.about, asked ?? right);
      const input: Input<Body> = { body, params, bytes: received.bytes };
      // What is prepared may act on something already.
      if (declared.prepare && params.jobId) await requireSeenBy(context, request, params.jobId);
      const prepared = (await declared.prepare?.(input, callerFor(request, body, context.now()))) as Prepared;
      const now = context.now();
      const caller = callerFor(request, body, now);
      // The sum is that of what was sent: whoever sends it again, it is the same.
      const client = clientWrite(kind, { ...input, body: received.about });
      const lock = declared.lock?.(input) ?? (params.jobId ? `job ${params.jobId}` : kind);
      const { isNew, result } = await context.turns.take(lock, () =>
        context.database.write(now, caller, (opened) =>
          writeOnce(opened, client, {
            write: async () => {
              const scope = params.jobId ? await holdingJob(opened, params.jobId) : opened;
              if (params.jobId) await requireSeen(scope, params.jobId);
              if (scope.job?.handedOverAt && !declared.isTakenWhenClosed) {
                throw new HttpProblem("conflict", "This job is closed. Open it again in Hand over to change it.");
              }
              await declared.write(scope, input, prepared);
              if (params.jobId) await markStale(scope, params.jobId, declared.isFact ? "fact" : "edit");
            },
            answer: () => declared.answer(opened, input),
          }),
        ),
      );
      if (isNew) context.heavy.poke();
      await declared.after?.(input);
      if (result === undefined) response.status(204).end();
      else response.status(isNew && declared.creates ? 201 : 200).json(result);
    },
  };
}

/** Who sends it, for the rows and the audit; alone it is whom the page names. */
export function callerFor(request: Request, body: unknown, now: Date): Caller {
  const who = whoOf(request);
  if (!who) return { ...noCaller, clock: requestClock(request, now) };
  const { role, benchId } = who;
  return { personId: who.personId ?? personOf(body), role, benchId, clock: requestClock(request, now) };
}

/** A write's id travels as `id` where it is also its row's, as `writeId` where it edits one. */
function clientWrite<Body extends AnyObject>(kind: string, { body, params, bytes }: Input<Body>): ClientWrite {
  const { id, writeId } = body as { id?: string; writeId?: string };
  const where = Object.values(params).join(" ");
  return { id: (writeId ?? id) as string, kind: `${kind} ${where}`.trim(), jobId: params.jobId ?? null, body, bytes };
}

export function read<Query extends AnyObject = AnyObject, Result = unknown>(declared: ReadRoute<Query, Result>): Route {
  return {
    method: "get",
    path: declared.path,
    right: declared.right,
    kind: "read",
    handle: async (context, request, response) => {
      admitted(request, declared.right);
      const params = paramsOf(request);
      const asked = declared.query?.(request.query) ?? {};
      const body = declared.schema ? parseBody(declared.schema, asked) : ({} as Query);
      const input = { body, params, bytes: null };
      const now = context.now();
      const caller = callerFor(request, null, now);
      const result = await context.database.read(
        now,
        async (scope) => {
          if (params.jobId) await requireSeen(scope, params.jobId);
          return declared.read(scope, input);
        },
        caller,
      );
      if (declared.send) await declared.send(response, result);
      else response.json(result);
    },
  };
}

export function live<Body extends AnyObject = AnyObject>(declared: LiveRoute<Body>): Route {
  return {
    method: declared.method,
    path: declared.path,
    right: declared.right,
    kind: "live",
    handle: async (context, request, response) => {
      admitted(request, declared.right);
      const params = paramsOf(request);
      const body = declared.schema ? parseBody(declared.schema, request.body) : ({} as Body);
      if (params.jobId) await requireSeenBy(context, request, params.jobId);
      await declared.live(request, response, { body, params, bytes: null });
    },
  };
}

/** Puts declared routes on the application. Every answer says what the server's clock showed. */
export function mount(app: Express, context: AppContext, declared: readonly Route[]): void {
  const keepClock = clockKeeper(context.database);
  for (const route of declared) {
    app[route.method](route.path, async (request, response) => {
      const now = context.now();
      response.set(clockHeaders.serverNow, String(now.getTime()));
      void keepClock(requestClock(request, now), now);
      await route.handle(context, request, response);
    });
  }
}
