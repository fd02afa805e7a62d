import type { Database } from "../database/database";
import { loadFamily } from "../records/loadFamily";
import { ruleEffects } from "../records/ruleEffects";
import { foldSummaries } from "../summaries/foldSummaries";
import type { HeavyWork } from "./heavyWork";
import { judgeJob } from "./judgeJob";

const retryMilliseconds = 2000;

/** The work itself, in whatever thread it is called: in the server's own worker, or beside a test. */
export function localHeavyWork(database: Database, now: () => Date): HeavyWork {
  let isAsked = false;
  let isClosed = false;
  let folding: Promise<void> | null = null;
  let timer: NodeJS.Timeout | null = null;

  async function fold(): Promise<void> {
    try {
      while (isAsked && !isClosed) {
        isAsked = false;
        while (!isClosed && (await foldSummaries(database, now())));
      }
    } catch {
      // The database is away or a job cannot be folded: the mark stays, and a stale charge reads unknown meanwhile.
      isAsked = true;
      if (!isClosed) timer ??= setTimeout(again, retryMilliseconds).unref();
    } finally {
      folding = null;
    }
  }

  function again(): void {
    timer = null;
    start();
  }

  function start(): void {
    isAsked = true;
    folding ??= fold();
  }

  return {
    poke: start,
    settled: async () => {
      while (folding) await folding;
    },
    ruleEffects: (change) => database.read(now(), (scope) => ruleEffects(scope, change)),
    family: (jobId) => database.read(now(), (scope) => loadFamily(scope, jobId)),
    judgeJob: (jobId) => database.read(now(), (scope) => judgeJob(scope, jobId)),
    firstNotFinite: async (bytes) => {
      const floats = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
      for (let at = 0; at + 4 <= bytes.byteLength; at += 4) {
        if (!Number.isFinite(floats.getFloat32(at, true))) return at / 4;
      }
      return -1;
    },
    close: async () => {
      isClosed = true;
      if (timer) clearTimeout(timer);
      await folding;
    },
  };
}
