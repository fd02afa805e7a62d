import type { Realm } from "@pale-cap/contract";
import pg from "pg";
import { knownDemoJobIds } from "./demo/knownDemoJobs";
import { removeJobs } from "./removeJobs";

/** What a database as a whole can be; practice stands within a shop. */
export type ShopRealm = Exclude<Realm, "practice">;

export interface Settling {
  readonly withDemo: boolean;
  /** Called before anything is taken out. */
  readonly backUp: (reason: string) => Promise<void>;
}

/** Two starts at once settle one after the other. */
const advisoryLock = 4780_2027;

/**
 * Settles once what a database is, and says it ever after. An empty one becomes the demo where the demo is wanted, else a
 * shop. One from before: with none but the demo's jobs it is the demo; with a job of a person's own it is a shop, and what
 * the demo had put there is backed up and taken out.
 */
export async function settleRealm(ownerUrl: string, { withDemo, backUp }: Settling): Promise<ShopRealm> {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  try {
    await client.query("BEGIN");
    await client.query(`SELECT pg_advisory_xact_lock(${advisoryLock})`);
    const settled = await client.query<{ realm: ShopRealm }>("SELECT realm FROM shop_identity");
    const realm = settled.rows[0]?.realm ?? (await settleOld(client, withDemo, backUp));
    await client.query("INSERT INTO shop_identity (realm, settled_at) VALUES ($1, now()) ON CONFLICT DO NOTHING", [
      realm,
    ]);
    await client.query("COMMIT");
    return realm;
  } finally {
    await client.end();
  }
}

async function settleOld(client: pg.Client, withDemo: boolean, backUp: Settling["backUp"]): Promise<ShopRealm> {
  const { rows } = await client.query<{ id: string }>("SELECT id FROM jobs");
  const people = await client.query("SELECT 1 FROM people LIMIT 1");
  const demoIds = rows.map((row) => row.id).filter((id) => knownDemoJobIds.has(id));
  if (rows.length === 0) return people.rowCount === 0 && withDemo ? "demo" : "shop";
  if (demoIds.length === rows.length) {
    await client.query("UPDATE jobs SET realm = 'demo'");
    await client.query("UPDATE job_summaries SET realm = 'demo'");
    return "demo";
  }
  if (demoIds.length > 0) {
    await backUp("before the demo's jobs are taken out of this shop");
    await removeJobs(client, demoIds);
  }
  return "shop";
}
