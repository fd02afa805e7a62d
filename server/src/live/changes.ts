import pg from "pg";
import { changesChannel, everyJob, presenceChannel } from "../summaries/markStale";

export interface JobChange {
  readonly jobId: string;
  readonly sequence: number;
}

/** What anybody here may listen to. */
export interface ChangeListener {
  readonly changed: (sequence: number) => void;
  readonly present: () => void;
  /** What all jobs are judged by changed. */
  readonly rules: () => void;
  /** The line to the database was down: something may have been said meanwhile. */
  readonly missed: () => void;
}

/** Changes of jobs, whichever process stored them. */
export interface Changes {
  listen(jobId: string, listener: ChangeListener): () => void;
  close(): Promise<void>;
}

const firstPauseMilliseconds = 200;
const longestPauseMilliseconds = 5000;

/**
 * Hears what the database tells with each commit, over a connection of its own: a pooler in transaction mode would be deaf. A line that
 * breaks is opened again, and everybody is told that something may have been missed.
 */
export function openChanges(directUrl: string): Changes {
  const listeners = new Map<string, Set<ChangeListener>>();
  let client: pg.Client | null = null;
  let isClosed = false;
  let pause = firstPauseMilliseconds;
  let timer: NodeJS.Timeout | undefined;

  const each = (jobId: string, tell: (one: ChangeListener) => void) => {
    for (const one of listeners.get(jobId) ?? []) tell(one);
  };

  function hear({ channel, payload = "" }: pg.Notification): void {
    const said = parsed(payload);
    if (!said) return;
    if (said.job === everyJob) for (const jobId of listeners.keys()) each(jobId, (one) => one.rules());
    else if (channel === presenceChannel) each(said.job, (one) => one.present());
    else each(said.job, (one) => one.changed(said.sequence));
  }

  async function open(): Promise<void> {
    const opening = new pg.Client({
      connectionString: directUrl,
      keepAlive: true,
      connectionTimeoutMillis: 5000,
      application_name: "pale-cap changes",
    });
    // Told before anybody waits for it: an end without a listener would end the process.
    opening.on("error", () => undefined);
    opening.on("end", () => {
      if (client !== opening) return;
      client = null;
      later();
    });
    opening.on("notification", hear);
    try {
      await opening.connect();
      await opening.query(`LISTEN ${changesChannel}; LISTEN ${presenceChannel}`);
    } catch {
      await opening.end().catch(() => undefined);
      later();
      return;
    }
    if (isClosed) {
      await opening.end().catch(() => undefined);
      return;
    }
    client = opening;
    pause = firstPauseMilliseconds;
    for (const of of listeners.values()) for (const one of of) one.missed();
  }

  function later(): void {
    if (isClosed) return;
    timer = setTimeout(() => void open(), pause);
    pause = Math.min(2 * pause, longestPauseMilliseconds);
  }

  void open();
  return {
    listen: (jobId, listener) => {
      const of = listeners.get(jobId) ?? new Set();
      listeners.set(jobId, of.add(listener));
      return () => {
        of.delete(listener);
        if (of.size === 0) listeners.delete(jobId);
      };
    },
    close: async () => {
      isClosed = true;
      clearTimeout(timer);
      const last = client;
      client = null;
      await last?.end().catch(() => undefined);
    },
  };
}

/** Nobody listens: where a single process is looked at by itself. */
export const noChanges: Changes = { listen: () => () => undefined, close: async () => undefined };

function parsed(payload: string): { readonly job: string; readonly sequence: number } | null {
  try {
    const { job, sequence } = JSON.parse(payload) as { job?: unknown; sequence?: unknown };
    return typeof job === "string" ? { job, sequence: Number(sequence ?? 0) } : null;
  } catch {
    return null;
  }
}
