import type { WhereOptions } from "sequelize";
import type { Rows } from "../database/rows";
import { HttpProblem } from "./problems";

interface VersionedRow {
  id: string;
  version: number;
}

/**
 * Changes a row if it still has the version that the edit came from; else 409 with the row as it stands, so that the
 * person can see both.
 *
 * @param key.where what else must hold of the row (its job, its board), so that an id from elsewhere finds nothing
 */
export async function updateFromVersion<Row extends VersionedRow>(
  rows: Rows<Row>,
  key: { readonly id: string; readonly version: number; readonly where?: WhereOptions<Row> },
  values: Partial<Row>,
): Promise<void> {
  const where = { ...(key.where as object), id: key.id } as WhereOptions<Row>;
  const stored = await rows.locked(where);
  if (!stored) throw new HttpProblem("not_found", "What this edit belongs to is not stored.");
  if (stored.version !== key.version) {
    throw new HttpProblem("stale_version", "Somebody changed this in the meantime. Nothing was overwritten.", {
      current: stored,
    });
  }
  await rows.update({ ...values, version: stored.version + 1 }, where);
}
