import {
  type Account,
  accountEditSchema,
  type MadeLink,
  newAccountSchema,
  type Person,
  routes,
  signOutSchema,
} from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import { audit } from "../../audit/audit";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { callerFor, live, type Route, read, write } from "../../http/route";
import { makeLink } from "../../people/oneTimeLinks";

/** Who works here, and their accounts. */
export function accountRoutes({ database, sessions, now }: AppContext): readonly Route[] {
  return [
    read({ path: routes.people, right: "read", read: loadPeople }),
    read({ path: routes.accounts, right: "manage_people", read: (scope) => loadAccounts(scope) }),
    write({
      method: "post",
      path: routes.accounts,
      kind: "account",
      right: "manage_people",
      creates: true,
      schema: newAccountSchema,
      write: async (scope, { body: { id, personId, name, login: typed, role } }) => {
        const login = typed.toLowerCase();
        const person = await scope.rows.people.first({ id: personId });
        if (!person) await scope.rows.people.insert({ id: personId, name });
        await requireFreeLogin(scope, login, id);
        await scope.sql(
          "INSERT INTO accounts (id, person_id, login, role, made_at) VALUES ($1, $2, $3, $4, $5) RETURNING id",
          [id, personId, login, role, scope.now],
        );
        await audit(scope, "account_made", { subject: login, details: { role } });
      },
      answer: (scope, { body }) => oneAccount(scope, body.id),
    }),
    write({
      method: "patch",
      path: routes.account,
      kind: "account edit",
      right: "manage_people",
      schema: accountEditSchema,
      // Two leads who demote each other: one after the other, and the second is told.
      lock: () => "accounts",
      write: async (scope, { params, body }) => {
        const id = params.accountId as string;
        await scope.sql("SELECT pg_advisory_xact_lock(hashtext('accounts')) IS NULL AS held");
        const before = await oneAccount(scope, id);
        if (!before) throw new HttpProblem("not_found", "There is no such account.");
        if (before.version !== body.version) {
          throw new HttpProblem("stale_version", "Somebody changed this in the meantime. Nothing was overwritten.", {
            current: before,
          });
        }
        await requireFreeLogin(scope, body.login, id);
        const { role, isActive } = body;
        if (before.role === "lead" && before.isActive && (role !== "lead" || !isActive)) {
          const others = (await loadAccounts(scope)).filter(
            (one) => one.id !== id && one.role === "lead" && one.isActive,
          );
          if (others.length === 0) throw new HttpProblem("conflict", "Somebody has to lead: make another lead first.");
        }
        await scope.rows.people.update({ name: body.name }, { id: before.personId });
        await scope.sql(
          `UPDATE accounts SET login = $2, role = $3, is_active = $4, version = version + 1 WHERE id = $1 RETURNING id`,
          [id, body.login.toLowerCase(), role, isActive],
        );
        await audit(scope, "account_changed", {
          subject: body.login,
          details: { role, isActive, before: before.role },
        });
      },
      answer: (scope, { params }) => oneAccount(scope, params.accountId as string),
      after: async ({ params, body }) => {
        if (!body.isActive) await sessions?.endOf(params.accountId as string);
      },
    }),
    write({
      method: "post",
      path: routes.accountSignOut,
      kind: "account sign-out",
      right: "manage_people",
      schema: signOutSchema,
      write: async (scope, { params }) => {
        const account = await oneAccount(scope, params.accountId as string);
        if (!account) throw new HttpProblem("not_found", "There is no such account.");
        await audit(scope, "signed_out_by_lead", { subject: account.login });
      },
      answer: (scope, { params }) => oneAccount(scope, params.accountId as string),
      after: async ({ params }) => sessions?.endOf(params.accountId as string),
    }),
    // Not a write by a client's id: what it answers is told once and kept nowhere.
    live({
      method: "post",
      path: routes.accountLink,
      right: "manage_people",
      live: async (request, response, { params }) => {
        const at = now();
        const link = await database.write(at, callerFor(request, null, at), async (scope) => {
          const account = await oneAccount(scope, params.accountId as string);
          if (!account?.isActive) throw new HttpProblem("conflict", "This account is shut, or there is none.");
          await audit(scope, "link_made", { subject: account.login });
          return makeLink(scope, "set_password", account.id);
        });
        response.status(201).json(link satisfies MadeLink);
      },
    }),
  ];
}

async function loadPeople(scope: Scope): Promise<readonly Person[]> {
  return scope.sql<Person>(
    `SELECT p.id, p.name, a.id AS "accountId", coalesce(a.pin_hash IS NOT NULL, false) AS "hasPin"
     FROM people p LEFT JOIN accounts a ON a.person_id = p.id AND a.is_active
     ORDER BY p.name, p.id`,
  );
}

const accountColumns = `a.id, a.version, a.person_id AS "personId", p.name, a.login, a.role, a.is_active AS "isActive",
  a.password_hash IS NOT NULL AS "hasPassword", a.pin_hash IS NOT NULL AS "hasPin",
  (SELECT count(*)::int FROM sessions s WHERE s.expire > now() AT TIME ZONE current_setting('TimeZone')
     AND (s.sess->>'openedBy' = a.id::text OR s.sess->'who'->>'accountId' = a.id::text)) AS "sessionCount",
  greatest(a.password_locked_until, a.pin_locked_until) AS "lockedUntil"`;

async function loadAccounts(scope: Scope): Promise<readonly Account[]> {
  const rows = await scope.sql<Omit<Account, "lockedUntil"> & { lockedUntil: Date | null }>(
    `SELECT ${accountColumns} FROM accounts a JOIN people p ON p.id = a.person_id ORDER BY a.is_active DESC, p.name, a.id`,
  );
  // A lock that is over locks nothing.
  return rows.map((row) => ({
    ...row,
    lockedUntil: row.lockedUntil && row.lockedUntil > scope.now ? row.lockedUntil.toISOString() : null,
  }));
}

const oneAccount = async (scope: Scope, id: string) => (await loadAccounts(scope)).find((one) => one.id === id);

async function requireFreeLogin(scope: Scope, login: string, id: string): Promise<void> {
  const taken = await scope.sql("SELECT id FROM accounts WHERE lower(login) = lower($1) AND id <> $2", [login, id]);
  if (taken.length > 0) {
    throw new HttpProblem("conflict", "Somebody signs in under this name already.", {
      errors: [{ path: "login", code: "place_taken" }],
    });
  }
}
