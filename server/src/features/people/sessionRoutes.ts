import { randomUUID } from "node:crypto";
import {
  benchChangeSchema,
  type LinkState,
  linkLookSchema,
  linkUseSchema,
  loginField,
  passwordChangeSchema,
  personChangeSchema,
  pinChangeSchema,
  routes,
  type SessionState,
  signInSchema,
} from "@pale-cap/contract";
import type { Request, Response } from "express";
import type { AnyObject, ObjectSchema } from "yup";
import type { AppContext } from "../../appContext";
import { audit } from "../../audit/audit";
import { type Caller, noCaller, type Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { requestClock } from "../../http/requestClock";
import { live, type Route } from "../../http/route";
import { type AccountForCheck, claimTry, forgetTries, type Secret } from "../../people/attempts";
import { closeLinks, hasLead, openLink } from "../../people/oneTimeLinks";
import { hashSecret, isSecret } from "../../people/passwords";
import { beginSession, endSession, isBenchOpen, saveSession } from "../../people/sessions";
import { rightsBy, setWho, type Who, whoOf } from "../../people/who";

/**
 * Signing in, taking over a bench, and one's own password and PIN. None of these is a write by a client's id: a body with a secret
 * in it leaves no trace, not even its sum.
 */
export function sessionRoutes(context: AppContext): readonly Route[] {
  const { database, now, sessions } = context;
  const mode = sessions ? "shop" : "alone";

  const state = async (request: Request, response: Response) => {
    const isOpen = sessions !== null && isBenchOpen(request);
    const told = await database.read(now(), async (scope) => ({
      isFirstStart: sessions !== null && !(await hasLead(scope)),
      takers: isOpen ? await takersOf(scope) : [],
    }));
    response.json({ mode, who: whoOf(request), isBenchOpen: isOpen, ...told } satisfies SessionState);
  };
  /** A route that only a shop has; alone there is nobody to tell apart. */
  const inShop = <Body extends AnyObject>(
    method: "post" | "put" | "delete",
    path: string,
    right: "read" | "anybody",
    schema: ObjectSchema<Body> | undefined,
    work: (request: Request, response: Response, body: Body) => Promise<void>,
  ) =>
    live<Body>({
      ...{ method, path, right },
      ...(schema ? { schema } : {}),
      live: async (request, response, { body }) => {
        if (!sessions) throw new HttpProblem("conflict", "This Pale Cap runs alone: nobody signs in here.");
        await work(request, response, body);
      },
    });

  /** Lets somebody in by what they typed, or says in plain words why not; each wrong try counts, however many come at once. */
  async function letIn(
    request: Request,
    secret: Secret,
    by: { readonly login: string } | { readonly accountId: string },
    typed: string,
  ): Promise<AccountForCheck> {
    const at = now();
    const tried = await database.write(at, callerOf(request, at), (scope) => claimTry(scope, secret, by));
    const account = tried && "id" in tried ? tried : null;
    const isRight = await isSecret(account?.hash ?? null, typed);
    if (account && isRight && account.isActive) {
      await database.write(at, callerOf(request, at), (scope) => forgetTries(scope, account.id, secret));
      return account;
    }
    const lockedUntil = tried?.lockedUntil ?? null;
    const noun = secret === "pin" ? "PIN" : "password";
    if (account) {
      await database.write(at, callerOf(request, at), async (scope) => {
        const details = { secret, locked: account.lockedUntil !== null };
        await audit(scope, "sign_in_refused", { subject: account.login, details });
      });
    }
    if (lockedUntil) {
      const seconds = Math.max(1, Math.ceil((lockedUntil.getTime() - now().getTime()) / 1000));
      throw new HttpProblem("too_many", `Too many wrong tries: the ${noun} is locked for ${waitText(seconds)}.`, {
        current: { lockedSeconds: seconds },
      });
    }
    // Whoever is in already stays in.
    if (whoOf(request)) throw new HttpProblem("not_allowed", `The ${noun} is wrong.`);
    throw new HttpProblem("not_signed_in", secret === "pin" ? "The PIN is wrong." : "Name or password is wrong.");
  }

  const enter = async (request: Request, account: AccountForCheck, by: Who["by"], asked: string | null) => {
    // A bench that was taken away meanwhile keeps nobody out.
    const isThere = asked !== null && (await database.read(now(), ({ rows }) => rows.benches.has({ id: asked })));
    const benchId = isThere ? asked : null;
    const role = account.role as Who["role"];
    const { id: accountId, personId, name, hasPin } = account;
    setWho(request, {
      accountId,
      personId,
      name,
      role,
      rights: rightsBy(role, by),
      by,
      benchId,
      hasPin,
    });
    const at = now();
    await database.write(at, callerOf(request, at), (scope) =>
      audit(scope, by === "pin" ? "bench_taken_over" : "signed_in", { subject: account.login }),
    );
    return benchId;
  };

  return [
    live({ method: "get", path: routes.session, right: "anybody", live: state }),
    inShop("post", routes.session, "anybody", signInSchema, async (request, response, body) => {
      const account = await letIn(request, "password", body, body.password);
      const benchId = await enter(request, account, "password", body.benchId);
      await beginSession(request, account.id, benchId);
      await state(request, response);
    }),
    inShop("delete", routes.session, "anybody", undefined, async (request, response) => {
      const at = now();
      if (whoOf(request)) await database.write(at, callerOf(request, at), (scope) => audit(scope, "signed_out", {}));
      await endSession(request);
      response.status(204).end();
    }),
    inShop("post", routes.sessionPerson, "anybody", personChangeSchema, async (request, response, body) => {
      const { openedBy, benchId = null } = request.session;
      if (!openedBy) throw new HttpProblem("not_signed_in", "Nobody opened this bench by a password yet.");
      const account = await letIn(request, "pin", { accountId: body.accountId }, body.pin);
      await enter(request, account, "pin", benchId);
      request.session.who = { accountId: account.id, by: "pin" };
      await saveSession(request);
      await state(request, response);
    }),
    // The bench is left: it stays open to a PIN.
    inShop("delete", routes.sessionPerson, "read", undefined, async (request, response) => {
      const at = now();
      await database.write(at, callerOf(request, at), (scope) => audit(scope, "bench_left", {}));
      request.session.who = null;
      await saveSession(request);
      response.status(204).end();
    }),
    inShop("put", routes.sessionBench, "read", benchChangeSchema, async (request, response, { benchId }) => {
      if (benchId !== null && !(await database.read(now(), ({ rows }) => rows.benches.has({ id: benchId })))) {
        throw new HttpProblem("conflict", "There is no such bench.");
      }
      request.session.benchId = benchId;
      await saveSession(request);
      setWho(request, { ...(whoOf(request) as Who), benchId });
      await state(request, response);
    }),
    inShop("put", routes.sessionPassword, "read", passwordChangeSchema, async (request, response, body) => {
      const { accountId } = whoOf(request) as Who;
      const account = await letIn(request, "password", { accountId: accountId as string }, body.password);
      await setSecret(request, account.id, "password", await hashSecret(body.newPassword));
      await sessions?.endOf(account.id, request.sessionID);
      await state(request, response);
    }),
    inShop("put", routes.sessionPin, "read", pinChangeSchema, async (request, response, body) => {
      const { accountId } = whoOf(request) as Who;
      const account = await letIn(request, "password", { accountId: accountId as string }, body.password);
      await setSecret(request, account.id, "pin", body.newPin === null ? null : await hashSecret(body.newPin));
      setWho(request, { ...(whoOf(request) as Who), hasPin: body.newPin !== null });
      await state(request, response);
    }),
    inShop("post", routes.oneTimeLink, "anybody", linkLookSchema, async (_request, response, { token }) => {
      response.json(await database.write(now(), noCaller, (scope) => linkState(scope, token)));
    }),
    inShop("post", routes.oneTimeLinkUse, "anybody", linkUseSchema, async (request, response, body) => {
      const passwordHash = await hashSecret(body.newPassword);
      const at = now();
      const account = await database.write(at, callerOf(request, at), async (scope) => {
        const link = await openLink(scope, body.token);
        if (!link) throw usedUp();
        const accountId = link.purpose === "first_lead" ? await makeFirstLead(scope, body) : (link.accountId as string);
        await closeLinks(scope, link);
        const [set] = await scope.sql<AccountForCheck>(
          `UPDATE accounts a SET password_hash = $2, wrong_passwords = 0, password_locked_until = NULL, version = version + 1
           FROM people p WHERE p.id = a.person_id AND a.id = $1 AND a.is_active
           RETURNING a.id, a.person_id AS "personId", p.name, a.login, a.role, a.is_active AS "isActive", a.pin_hash IS NOT NULL AS "hasPin"`,
          [accountId, passwordHash],
        );
        if (!set) throw new HttpProblem("conflict", "This account is shut. Ask whoever leads the shop.");
        const own = { ...scope, personId: set.personId, role: set.role as Who["role"] };
        await audit(own, "link_used", { subject: set.login });
        return set;
      });
      // Whoever asked for a new password may have lost the old one to somebody.
      await sessions?.endOf(account.id);
      await enter(request, account, "password", null);
      await beginSession(request, account.id, null);
      await state(request, response);
    }),
  ];

  async function setSecret(request: Request, accountId: string, secret: Secret, hashed: string | null) {
    const at = now();
    await database.write(at, callerOf(request, at), async (scope) => {
      await scope.sql(`UPDATE accounts SET ${secret}_hash = $2, version = version + 1 WHERE id = $1 RETURNING id`, [
        accountId,
        hashed,
      ]);
      await forgetTries(scope, accountId, secret);
      await audit(scope, secret === "pin" ? "pin_changed" : "password_changed", {
        details: hashed === null ? { taken_away: true } : {},
      });
    });
  }
}

const takersOf = (scope: Scope) =>
  scope.sql<SessionState["takers"][number]>(
    `SELECT a.id AS "accountId", p.name FROM accounts a JOIN people p ON p.id = a.person_id
     WHERE a.is_active AND a.pin_hash IS NOT NULL ORDER BY p.name, a.id`,
  );

/** Who asks, for the audit: nobody before they are in. */
function callerOf(request: Request, at: Date): Caller {
  const who = whoOf(request);
  if (!who) return noCaller;
  const { personId, role, benchId } = who;
  return { personId, role, benchId, clock: requestClock(request, at) };
}

const usedUp = () => new HttpProblem("conflict", "This link was used, or its time is over. Ask for another one.");

async function linkState(scope: Scope, token: string): Promise<LinkState> {
  const link = await openLink(scope, token);
  if (!link) throw usedUp();
  if (link.accountId === null) return { purpose: link.purpose, name: null, login: null };
  const [account] = await scope.sql<{ name: string; login: string }>(
    "SELECT p.name, a.login FROM accounts a JOIN people p ON p.id = a.person_id WHERE a.id = $1",
    [link.accountId],
  );
  return { purpose: link.purpose, name: account?.name ?? null, login: account?.login ?? null };
}

/** The first account, and only the first: two links in two hands make one lead. */
async function makeFirstLead(
  scope: Scope,
  { name, login }: { readonly name: string | null; readonly login: string | null },
): Promise<string> {
  await scope.sql("SELECT pg_advisory_xact_lock(hashtext('first lead')) IS NULL AS held");
  if (await hasLead(scope)) throw usedUp();
  const errors = [
    ...(name?.trim() ? [] : [{ path: "name", code: "needed" as const }]),
    ...(login?.trim() && loginField().isValidSync(login.trim().toLowerCase())
      ? []
      : [{ path: "login", code: "needed" as const }]),
  ];
  if (errors.length > 0)
    throw new HttpProblem("invalid_body", "Say how you are called and how you sign in.", { errors });
  const [id, personId] = [randomUUID(), randomUUID()];
  await scope.rows.people.insert({ id: personId, name: (name as string).trim() });
  await scope.sql(
    "INSERT INTO accounts (id, person_id, login, role, made_at) VALUES ($1, $2, $3, 'lead', $4) RETURNING id",
    [id, personId, (login as string).trim().toLowerCase(), scope.now],
  );
  return id;
}

const waitText = (seconds: number) =>
  seconds < 60 ? `${seconds} seconds` : seconds < 120 ? "a minute" : `${Math.round(seconds / 60)} minutes`;
