import type { Transaction, WhereOptions } from "sequelize";
import type { Table } from "../database/models/table";
import { HttpProblem } from "./problems";

interface VersionedRow {
  id: string;
  version: number;
}

/**
 * Changes a row if it still has the version that the edit came from; else 409 with the row as it stands, so that the
 * person can see both.
 *
 * @param scope what else must hold of the row (its job, its board), so that an id from elsewhere finds nothing
 */
export async function updateFromVersion<Row extends VersionedRow>(
  table: Table<Row>,
  key: { readonly id: string; readonly version: number; readonly scope?: Partial<Row> },
  values: Partial<Row>,
  transaction: Transaction,
): Promise<Row> {
  const where = { ...key.scope, id: key.id } as WhereOptions<Row>;
  const stored = (await table.findOne({ where, transaction, raw: true, lock: true })) as unknown as Row | null;
  if (!stored) throw new HttpProblem("not_found", "What this edit belongs to is not stored.");
  if (stored.version !== key.version) {
    throw new HttpProblem("stale_version", "Somebody changed this in the meantime. Nothing was overwritten.", {
      current: stored,
    });
  }
  const changed = { ...values, version: stored.version + 1 } as Partial<Row>;
  await table.update(changed as never, { where, transaction });
  return { ...stored, ...changed };
}
