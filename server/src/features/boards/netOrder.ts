import type { BoardChange, FaultCode } from "@pale-cap/contract";
import { Op } from "sequelize";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";

/**
 * A rail is filtered from another rail of its unit, on its own board or another, never in the end from itself. Looked at after the whole batch:
 * one edit may turn two rails round.
 */
export async function requireNoNetBehindItself(
  scope: Scope,
  boardIds: string[],
  changes: readonly BoardChange[],
): Promise<void> {
  const nets = await scope.rows.nets.all({ boardId: { [Op.in]: boardIds } }, [["id", "ASC"]]);
  const before = new Map(nets.map((net) => [net.id, net.network?.behindNetId ?? null]));
  for (const [index, change] of changes.entries()) {
    if (change.table !== "net" || !change.values?.network?.behindNetId) continue;
    const refuse = (code: FaultCode) => {
      const path = `changes[${index}].values.network.behindNetId`;
      throw new HttpProblem("conflict", "A rail cannot be filtered from itself, nor from another unit's.", {
        errors: [{ path, code }],
      });
    };
    const seen = new Set([change.id]);
    for (let next = before.get(change.id) ?? null; next !== null; next = before.get(next) ?? null) {
      if (!before.has(next)) refuse("not_on_board");
      if (seen.has(next)) refuse("leads_back");
      seen.add(next);
    }
  }
}
