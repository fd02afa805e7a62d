import type { BenchEvent, PracticeActRow, PracticeLine, PracticeState } from "@pale-cap/contract";
import type { Scope } from "../database/scope";

/** What was done on a practice job, in its order. */
export async function loadActs(scope: Scope, jobId: string): Promise<readonly PracticeActRow[]> {
  const rows = await scope.rows.practiceActs.all({ jobId }, [["sequence", "ASC"]]);
  return rows.map(({ id, sequence, act, hintLevel, told, minutes, at }) => ({
    ...{ id, sequence: Number(sequence), act, hintLevel, told, minutes },
    at: new Date(at).toISOString(),
  }));
}

/** A practice job's own side, as far as the database knows it; null where the job is about no practice supply. */
export async function loadPractice(scope: Scope, jobId: string): Promise<Omit<PracticeState, "state"> | null> {
  const supply = await scope.rows.practiceSupplies.first({ jobId });
  if (!supply) return null;
  const { lasting: _, begunAt, ...row } = supply;
  const events = await scope.rows.practiceEvents.all({ jobId }, [["number", "ASC"]]);
  const ended = await scope.rows.practiceResults.first({ jobId });
  return {
    ...{ ...row, begunAt: new Date(begunAt).toISOString() },
    acts: await loadActs(scope, jobId),
    events: events.map(
      (one): BenchEvent => ({
        ...{ sequence: one.number, code: one.code as BenchEvent["code"], at: one.atName, volts: one.volts },
        ...{ joules: one.joules, benchSeconds: one.benchSeconds },
      }),
    ),
    result: ended ? { ...ended.result, endedAt: new Date(ended.endedAt).toISOString() } : null,
  };
}

/** Keeps what came of it on the bench and is not kept yet. */
export async function storeEvents(scope: Scope, jobId: string, events: readonly BenchEvent[]): Promise<void> {
  const known = await scope.rows.practiceEvents.count({ jobId });
  const fresh = events.filter((one) => one.sequence > known);
  if (fresh.length === 0) return;
  await scope.rows.practiceEvents.insertAll(
    fresh.map(({ sequence, code, at, volts, joules, benchSeconds }) => ({
      ...{ jobId, number: sequence, code, atName: at, volts, joules, benchSeconds },
    })),
  );
}

/** Every practice supply that was begun, the latest first; of one person, or of all. */
export async function loadLines(scope: Scope, personId: string | null): Promise<readonly PracticeLine[]> {
  const where = personId === null ? {} : { personId };
  const supplies = await scope.rows.practiceSupplies.all(where, [["begunAt", "DESC"]]);
  const results = new Map(
    (await scope.rows.practiceResults.all(where, [["endedAt", "ASC"]])).map((one) => [one.jobId, one]),
  );
  return supplies.map(({ jobId, supply, title, difficulty, personId: by, listId, begunAt }) => {
    const ended = results.get(jobId);
    return {
      ...{ jobId, supply, title, difficulty, personId: by, listId, begunAt: new Date(begunAt).toISOString() },
      endedAt: ended ? new Date(ended.endedAt).toISOString() : null,
      ...{ total: ended?.total ?? null, isPassed: ended?.isPassed ?? null, isFatal: ended?.isFatal ?? null },
      ...{ minutes: ended?.minutes ?? null, bestMinutes: ended?.bestMinutes ?? null },
    };
  });
}
