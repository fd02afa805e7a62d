import { appendFile, readFile } from "node:fs/promises";
import { join } from "node:path";
import type { Database } from "../database/database";
import { noCaller, type Scope } from "../database/scope";
import { markStale } from "../summaries/markStale";

/** Lies beside the backups: ids alone, so that whatever is restored can be cleaned of the same names again. */
const fileName = "erasures.jsonl";

/**
 * Takes a customer's name, contact and words out of everything that is stored: by the owner's own function, which alone may change
 * what is only ever added to.
 */
export async function eraseCustomer(scope: Scope, customerId: string): Promise<void> {
  await scope.sql("SELECT erase_customer($1)", [customerId]);
  const links = await scope.rows.jobCustomers.all({ customerId }, [["jobId", "ASC"]]);
  for (const { jobId } of links) await markStale(scope, jobId);
}

/** Remembers an erasure outside the database; nothing where the backups are somebody else's. */
export async function noteErasure(folder: string | null, customerId: string, at: Date): Promise<void> {
  if (folder === null) return;
  await appendFile(join(folder, fileName), `${JSON.stringify({ customerId, at })}\n`, { mode: 0o600 });
}

/**
 * After a restore the names of an older day are back: what was erased since is erased again, before anybody is answered.
 *
 * @returns how many customers were erased again
 */
export async function repeatErasures(database: Database, folder: string | null, now: Date): Promise<number> {
  const ids = folder === null ? [] : await notedIds(join(folder, fileName));
  let count = 0;
  for (const id of ids) {
    await database.write(now, noCaller, async (scope) => {
      const customer = await scope.rows.customers.first({ id });
      if (!customer || customer.erasedAt !== null) return;
      await eraseCustomer(scope, id);
      count += 1;
    });
  }
  return count;
}

async function notedIds(path: string): Promise<readonly string[]> {
  const text = await readFile(path, "utf8").catch(() => "");
  const ids = text.split("\n").flatMap((line) => {
    try {
      const { customerId } = JSON.parse(line) as { customerId?: unknown };
      return typeof customerId === "string" ? [customerId] : [];
    } catch {
      // The last line of a file that was being written; the rest counts.
      return [];
    }
  });
  return [...new Set(ids)];
}
