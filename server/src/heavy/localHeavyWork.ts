import type { HandOver } from "@pale-cap/contract";
import { qualityPage } from "../casebook/qualityPage";
import { seriesPage } from "../casebook/seriesPages";
import type { Database } from "../database/database";
import { HttpProblem } from "../http/problems";
import { debriefJob } from "../practice/debriefJob";
import { closingOf } from "../records/closing";
import { loadFamily, loadFamilyGrid } from "../records/loadFamily";
import { loadReportInput } from "../records/loadReportInput";
import { ruleEffects } from "../records/ruleEffects";
import { loadRuleValues } from "../records/rules";
import { drawReport, drawReports, printReport } from "../reports/drawReport";
import { foldSummaries } from "../summaries/foldSummaries";
import type { HeavyWork, PreparedHandOver } from "./heavyWork";
import { judgeJob } from "./judgeJob";

const retryMilliseconds = 2000;

/** The work itself, in whatever thread it is called: in the server's own worker, or beside a test. */
export function localHeavyWork(database: Database, now: () => Date): HeavyWork {
  let isAsked = false;
  let isClosed = false;
  let folding: Promise<void> | null = null;
  let timer: NodeJS.Timeout | null = null;
  let closings: Promise<unknown> = Promise.resolve();

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
    prepareHandOver: (jobId, body) => {
      // One after the other: where a job is closed at two places at once, the later one sees that it was.
      const prepared = closings.then(() => prepareHandOver(database, now(), jobId, body));
      closings = prepared.catch(() => null);
      return prepared;
    },
    report: (jobId, audience) => drawReport(database, now(), jobId, audience),
    reportFile: async (jobId, { audience, document, paper, madeAt }) => {
      const own = await database.read(now(), (scope) => loadRuleValues(scope));
      return printReport(database, now(), {
        ...{ jobId, madeAt, paper: paper ?? own["shop.paper"] },
        document: document ?? (await drawReport(database, now(), jobId, audience)),
      });
    },
    series: (query) => database.read(now(), (scope) => seriesPage(scope, query)),
    quality: (personId) => database.read(now(), (scope) => qualityPage(scope, personId)),
    familyGrid: (jobId) => database.read(now(), (scope) => loadFamilyGrid(scope, jobId)),
    debrief: (question) => database.read(now(), (scope) => debriefJob(scope, question)),
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

/** The judgement and both reports of a closing; null where it is stale already, or something stands against it: whoever holds the job says what. */
async function prepareHandOver(
  database: Database,
  now: Date,
  jobId: string,
  body: HandOver,
): Promise<PreparedHandOver | null> {
  const loaded = await database
    .read(now, async (scope) => {
      if (!(await scope.rows.jobs.has({ id: jobId, version: body.version }))) return null;
      return {
        judged: await judgeJob(scope, jobId),
        input: await loadReportInput(scope, jobId, await closingOf(scope, jobId, body)),
      };
    })
    .catch((error: unknown) => {
      if (error instanceof HttpProblem) return null;
      throw error;
    });
  return loaded && { judged: loaded.judged, documents: drawReports(loaded.input) };
}
