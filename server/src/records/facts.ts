import type { FactColumns } from "../database/models/table";
import type { Scope } from "../database/scope";

/** What the server adds to a fact: its receipt, how its clock stands, and whether the job was closed already. */
export async function factMoment(scope: Scope, clockId: string | null): Promise<Omit<FactColumns, "sequence">> {
  return {
    clockId,
    receivedAt: scope.now,
    clockAheadSeconds: await aheadSeconds(scope, clockId),
    cameAfterClosing: (scope.job?.handedOverAt ?? null) !== null,
  };
}

/** By how much a clock runs ahead: known of the page that sends, and of one that was heard before. */
async function aheadSeconds(scope: Scope, clockId: string | null): Promise<number | null> {
  if (clockId === null) return null;
  if (clockId === scope.clock?.id) return scope.clock.aheadSeconds;
  return (await scope.rows.clocks.first({ id: clockId }))?.aheadSeconds ?? null;
}
