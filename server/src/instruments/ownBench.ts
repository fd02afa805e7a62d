import type { AppContext } from "../appContext";
import type { Caller, Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { requireSeen } from "../records/seen";

/**
 * What an instrument does, somebody's hands are near: in a shop it obeys only the bench that it stands at. A practice supply's
 * instruments obey whoever may see that job.
 *
 * @throws {HttpProblem} with the name of the bench that it belongs to
 */
export async function requireOwnBench(scope: Scope, caller: Caller, benchId: string): Promise<void> {
  // Alone there is one page with all benches.
  if (caller.role === "everyone" || benchId === caller.benchId) return;
  const bench = await scope.rows.benches.first({ id: benchId });
  if (bench?.practiceJobId) {
    await requireSeen({ ...scope, ...caller }, bench.practiceJobId);
    return;
  }
  throw new HttpProblem(
    "conflict",
    caller.benchId === null
      ? `This instrument stands at ${bench?.name ?? "a bench"}. Say first that you work there.`
      : `This instrument stands at ${bench?.name ?? "another bench"}: it obeys that bench alone.`,
  );
}

/** The same for instruments by their ids, before anything is done with them. */
export async function requireOwnInstruments(
  { database, now }: AppContext,
  caller: Caller,
  instrumentIds: readonly string[],
): Promise<void> {
  if (caller.role === "everyone") return;
  await database.read(now(), async (scope) => {
    for (const id of instrumentIds) {
      const instrument = await scope.rows.instruments.first({ id });
      if (instrument) await requireOwnBench(scope, caller, instrument.benchId);
    }
  });
}
