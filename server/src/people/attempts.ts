import type { Scope } from "../database/scope";

export type Secret = "password" | "pin";

/** So many wrong tries are free; each further one is locked out for twice as long as the one before. */
const freeTries: Readonly<Record<Secret, number>> = { password: 5, pin: 3 };
const firstLockSeconds = 30;
const longestLockSeconds = 900;

export interface AccountForCheck {
  readonly id: string;
  readonly personId: string;
  readonly name: string;
  readonly login: string;
  readonly role: string;
  readonly isActive: boolean;
  readonly hash: string | null;
  readonly hasPin: boolean;
  /** What stands after this try, if it turns out wrong. */
  readonly lockedUntil: Date | null;
}

/**
 * Counts a try before anything is compared, so that many at once are no more tries than one after the other; a right one takes the
 * count back.
 *
 * @returns the account; null where there is none; the moment until which it is locked
 */
export async function claimTry(
  scope: Scope,
  secret: Secret,
  by: { readonly login: string } | { readonly accountId: string },
): Promise<AccountForCheck | { readonly lockedUntil: Date } | null> {
  const [column, value] = "login" in by ? ["lower(a.login)", by.login.toLowerCase()] : ["a.id::text", by.accountId];
  const [wrong, locked] = columnsOf(secret);
  const [row] = await scope.sql<AccountForCheck>(
    `UPDATE accounts a SET ${wrong} = ${wrong} + 1,
       ${locked} = CASE WHEN ${wrong} + 1 < ${freeTries[secret]} THEN NULL ELSE $2::timestamptz + make_interval(secs =>
         least(${longestLockSeconds}, ${firstLockSeconds} * power(2, least(${wrong} + 1 - ${freeTries[secret]}, 20)))) END
     FROM people p WHERE p.id = a.person_id AND ${column} = $1 AND (${locked} IS NULL OR ${locked} <= $2)
     RETURNING a.id, a.person_id AS "personId", p.name, a.login, a.role, a.is_active AS "isActive",
       a.${secret}_hash AS hash, a.pin_hash IS NOT NULL AS "hasPin", a.${locked} AS "lockedUntil"`,
    [value, scope.now],
  );
  if (row) return row;
  const [held] = await scope.sql<{ until: Date }>(`SELECT ${locked} AS until FROM accounts a WHERE ${column} = $1`, [
    value,
  ]);
  return held?.until ? { lockedUntil: held.until } : null;
}

export async function forgetTries(scope: Scope, accountId: string, secret: Secret): Promise<void> {
  const [wrong, locked] = columnsOf(secret);
  await scope.sql(`UPDATE accounts SET ${wrong} = 0, ${locked} = NULL WHERE id = $1 RETURNING id`, [accountId]);
}

const columnsOf = (secret: Secret) => [`wrong_${secret}s`, `${secret}_locked_until`] as const;
