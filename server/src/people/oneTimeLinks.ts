import type { LinkState } from "@pale-cap/contract";
import type { Scope } from "../database/scope";
import { newToken, tokenHash } from "./passwords";

/** Long enough to be carried to another room, or to wait for the first morning. */
const validHours: Readonly<Record<LinkState["purpose"], number>> = { first_lead: 24, set_password: 72 };

/** A link that can be used once. The token stands after the `#`, so that it is in no log of any server. */
export async function makeLink(
  scope: Scope,
  purpose: LinkState["purpose"],
  accountId: string | null,
): Promise<{ readonly path: string; readonly expiresAt: string }> {
  const token = newToken();
  const expiresAt = new Date(scope.now.getTime() + validHours[purpose] * 3_600_000);
  await scope.sql(
    `INSERT INTO one_time_links (token_sha256, purpose, account_id, made_at, expires_at)
     VALUES ($1, $2, $3, $4, $5) RETURNING token_sha256`,
    [tokenHash(token), purpose, accountId, scope.now, expiresAt],
  );
  return { path: `/welcome#${token}`, expiresAt: expiresAt.toISOString() };
}

interface StoredLink {
  readonly purpose: LinkState["purpose"];
  readonly accountId: string | null;
}

/** A link that may still be used; the row is held, so that it is used once however many try. */
export async function openLink(scope: Scope, token: string): Promise<StoredLink | null> {
  const [link] = await scope.sql<StoredLink>(
    `SELECT purpose, account_id AS "accountId" FROM one_time_links
     WHERE token_sha256 = $1 AND used_at IS NULL AND expires_at > $2 FOR UPDATE`,
    [tokenHash(token), scope.now],
  );
  return link ?? null;
}

/** Used: with it every other one for the same. */
export async function closeLinks(scope: Scope, { purpose, accountId }: StoredLink): Promise<void> {
  await scope.sql(
    `UPDATE one_time_links SET used_at = $3
     WHERE used_at IS NULL AND purpose = $1 AND account_id IS NOT DISTINCT FROM $2 RETURNING token_sha256`,
    [purpose, accountId, scope.now],
  );
}

/** Whether somebody can sign in who may do everything: without one a shop is not open yet. */
export async function hasLead(scope: Scope): Promise<boolean> {
  const [row] = await scope.sql<{ has: boolean }>(
    "SELECT EXISTS (SELECT 1 FROM accounts WHERE role = 'lead' AND is_active AND password_hash IS NOT NULL) AS has",
  );
  return row?.has ?? false;
}
