import { Worker } from "node:worker_threads";
import type { Realm } from "@pale-cap/contract";
import * as Comlink from "comlink";
import nodeEndpoint from "comlink/dist/esm/node-adapter.mjs";
import type { Logger } from "pino";
import { HttpProblem } from "../http/problems";
import type { HeavyWork } from "./heavyWork";

/** The work in a thread of its own; one that ended is started anew with the next piece. */
export function threadedHeavyWork(databaseUrl: string, realm: Realm, logger: Logger): HeavyWork {
  let thread: {
    readonly worker: Worker;
    readonly remote: Comlink.Remote<HeavyWork>;
    readonly gone: Promise<never>;
  } | null;
  let isClosed = false;
  thread = null;

  function running() {
    if (thread) return thread;
    const worker = new Worker(new URL("./heavyThread.mjs", import.meta.url), { workerData: { databaseUrl, realm } });
    worker.unref();
    const gone = new Promise<never>((_, reject) => {
      worker.once("error", (error) => logger.error({ err: error }, "the judging thread ended"));
      worker.once("exit", () => {
        if (thread?.worker === worker) thread = null;
        reject(new HttpProblem("unavailable", "The judging was interrupted. Try again."));
      });
    });
    gone.catch(() => undefined);
    thread = { worker, gone, remote: Comlink.wrap<HeavyWork>(nodeEndpoint(worker)) };
    return thread;
  }

  function inThread<T>(work: (remote: Comlink.Remote<HeavyWork>) => Promise<T>): Promise<T> {
    if (isClosed) return Promise.reject(new HttpProblem("unavailable", "The server is stopping."));
    const { remote, gone } = running();
    return Promise.race([work(remote), gone]);
  }

  return {
    poke: () => void inThread((remote) => remote.poke()).catch(() => undefined),
    settled: () => inThread((remote) => remote.settled()),
    ruleEffects: (change) => inThread((remote) => remote.ruleEffects(change)),
    family: (jobId) => inThread((remote) => remote.family(jobId)),
    prepareHandOver: (jobId, body) => inThread((remote) => remote.prepareHandOver(jobId, body)),
    report: (jobId, audience) => inThread((remote) => remote.report(jobId, audience)),
    reportFile: (jobId, asked) => inThread((remote) => remote.reportFile(jobId, asked)),
    series: (query) => inThread((remote) => remote.series(query)),
    quality: (personId) => inThread((remote) => remote.quality(personId)),
    familyGrid: (jobId) => inThread((remote) => remote.familyGrid(jobId)),
    debrief: (question) => inThread((remote) => remote.debrief(question)),
    firstNotFinite: (bytes) => inThread((remote) => remote.firstNotFinite(bytes)),
    close: async () => {
      isClosed = true;
      const last = thread;
      if (!last) return;
      await Promise.race([last.remote.close(), last.gone]).catch(() => undefined);
      await last.worker.terminate();
    },
  };
}
