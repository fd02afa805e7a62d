import { type FactAnswer, mostFactsInBatch, type Problem, type ProblemCode, waitingCodes } from "@pale-cap/contract";
import { fieldProblemWords } from "@pale-cap/wording";
import type { Aside, Fact, QueuedFact } from "./fact";

/** What became of a fact that was handed in: stored, safe here until the server answers, or refused. */
export type Outcome =
  | { readonly state: "stored" | "waiting" }
  | { readonly state: "refused"; readonly problem: Problem };

/** What the sender needs of the world: tests give their own. */
export interface OutboxWorld {
  /** Facts of one job, in order; each is answered by itself, or the whole is not answered. */
  send(jobId: string, facts: readonly Fact[]): Promise<readonly FactAnswer[] | Problem>;
  readonly storage: {
    put(fact: QueuedFact): Promise<void>;
    remove(id: string): Promise<void>;
    all(): Promise<readonly QueuedFact[]>;
  };
  /** In the order in which they were confirmed. */
  queued(): readonly QueuedFact[];
  /** Adds facts or changes them; the queue stays in the order of their ids. */
  laid(facts: readonly QueuedFact[]): void;
  /** What was stored is laid into what the page shows; then the fact leaves. */
  stored(fact: Fact, rows: unknown): void;
  left(id: string): void;
  /** Another page of this browser stored facts of this job. */
  storedElsewhere(jobId: string): void;
  heard(isAnswering: boolean, because?: ProblemCode): void;
  /** Whether this computer keeps anything. */
  storageOpens(isOpen: boolean): void;
  /** One page of this browser sends at a time. */
  exclusively<T>(work: () => Promise<T>): Promise<T>;
  /** Facts and edits of one job go one after the other. */
  inTurn<T>(jobId: string, work: () => Promise<T>): Promise<T>;
  /** @returns how to call it off */
  wait(milliseconds: number, then: () => void): () => void;
}

const firstPauseMilliseconds = 1000;
const longestPauseMilliseconds = 10_000;
/** The server failed over one fact so often: it stands aside, the others go on. */
const mostFailures = 2;

/** Nothing is said against the fact: it is as good as before and is sent again. */
const isWaiting = (problem: Problem) => problem.status === 0 || waitingCodes.includes(problem.code);

/**
 * Sends facts in the order in which they were confirmed, those of one job together. Each is on this computer before it is
 * sent and leaves it when the server has stored it; its id stays, so that sending again cannot double it. Silence stops
 * the line and is tried again with growing pauses by one timer, however many facts wait; a refusal, or a server that
 * fails over one fact twice, steps aside, stays visible, and lets the others pass.
 */
export function createSender(world: OutboxWorld) {
  const waiting = new Map<string, (outcome: Outcome) => void>();
  let flushing: Promise<void> | null = null;
  let isAskedAgain = false;
  let pause = firstPauseMilliseconds;
  let callOff: (() => void) | null = null;
  /** After a batch that failed as a whole: one at a time, until it is known which. */
  let batchSize = mostFactsInBatch;

  function tell(id: string, outcome: Outcome): void {
    waiting.get(id)?.(outcome);
    waiting.delete(id);
  }

  const waitingOf = (jobId: string) => world.queued().filter((fact) => fact.jobId === jobId && fact.aside === null);

  function flush(): Promise<void> {
    if (flushing) {
      isAskedAgain = true;
      return flushing;
    }
    callOff?.();
    callOff = null;
    flushing = run().finally(() => {
      flushing = null;
    });
    return flushing;
  }

  async function run(): Promise<void> {
    do {
      isAskedAgain = false;
      const isAnswering = await world.exclusively(async () => {
        await takeUpOthers();
        for (;;) {
          const next = world.queued().find((fact) => fact.aside === null);
          if (!next) return true;
          if (!(await world.inTurn(next.jobId, () => sendOf(next.jobId)))) return false;
        }
      });
      if (!isAnswering) {
        tryLater();
        return;
      }
    } while (isAskedAgain);
  }

  /** One timer, whatever waits. */
  function tryLater(): void {
    for (const id of [...waiting.keys()]) tell(id, { state: "waiting" });
    if (callOff) return;
    callOff = world.wait(pause, () => {
      callOff = null;
      void flush();
    });
    pause = Math.min(2 * pause, longestPauseMilliseconds);
  }

  /**
   * Sends what waits of one job; the caller holds the job's turn.
   *
   * @returns false where the server is silent
   */
  async function sendOf(jobId: string): Promise<boolean> {
    for (;;) {
      const facts = waitingOf(jobId).slice(0, batchSize);
      if (facts.length === 0) return true;
      const answers = await world.send(jobId, facts);
      if (!("length" in answers)) {
        if (isWaiting(answers)) {
          world.heard(false, answers.code);
          return false;
        }
        // The whole was not taken, and nobody knows for whose sake.
        if (facts.length > 1) batchSize = 1;
        else if (!(await settle(facts[0] as QueuedFact, { problem: answers }))) return false;
        continue;
      }
      pause = firstPauseMilliseconds;
      world.heard(true);
      batchSize = mostFactsInBatch;
      let isGoingOn = true;
      for (const fact of facts) {
        const answer = answers.find((one) => one.id === fact.body.id);
        if (answer && !(await settle(fact, answer))) isGoingOn = false;
      }
      if (!isGoingOn || answers.length === 0) return false;
    }
  }

  /** @returns false where the fact is to be tried again later */
  async function settle(
    fact: QueuedFact,
    answer: { readonly rows: unknown } | { readonly problem: Problem },
  ): Promise<boolean> {
    if ("rows" in answer) {
      world.stored(fact, answer.rows);
      await leave(fact.body.id, { state: "stored" });
      return true;
    }
    const { problem } = answer;
    const failureCount = fact.failureCount + 1;
    if (problem.status >= 500 && failureCount < mostFailures) {
      world.laid([{ ...fact, failureCount }]);
      return false;
    }
    const refusal = [problem.title, ...problem.errors.slice(0, 1).map(fieldProblemWords)].join(". ");
    const isForAnother = problem.code === "not_allowed";
    const words = isForAnother ? problem.detail : refusal;
    const aside: Aside = { refusal: words, isTrouble: problem.status >= 500, ...(isForAnother && { isForAnother }) };
    await keep({ ...fact, failureCount, aside });
    tell(fact.body.id, { state: "refused", problem });
    return true;
  }

  async function leave(id: string, outcome: Outcome): Promise<void> {
    // Where nothing can be removed nothing was kept, or it is sent once more under its id: neither does harm.
    await world.storage.remove(id).catch(() => world.storageOpens(false));
    world.left(id);
    tell(id, outcome);
  }

  /** Lays a fact down here and says whether this computer keeps it. */
  async function keep(fact: QueuedFact): Promise<void> {
    world.laid([fact]);
    const kept = { ...fact, isKept: true };
    try {
      await world.storage.put(kept);
      // It may have left meanwhile.
      if (world.queued().some((one) => one.body.id === fact.body.id)) world.laid([kept]);
      world.storageOpens(true);
    } catch {
      world.storageOpens(false);
    }
  }

  /** What other pages of this browser left or stored: they share one outbox. */
  async function takeUpOthers(): Promise<void> {
    let all: readonly QueuedFact[];
    try {
      all = await world.storage.all();
      world.storageOpens(true);
    } catch {
      world.storageOpens(false);
      return;
    }
    const here = new Set(all.map((fact) => fact.body.id));
    for (const fact of world.queued()) {
      if (!fact.isKept || here.has(fact.body.id)) continue;
      world.storedElsewhere(fact.jobId);
      world.left(fact.body.id);
      tell(fact.body.id, { state: "stored" });
    }
    const known = new Set(world.queued().map((fact) => fact.body.id));
    world.laid(all.filter((fact) => !known.has(fact.body.id)));
  }

  return {
    /** Keeps a fact and sends it; resolves when it is stored, refused, or known to wait. */
    async submit(fact: Fact): Promise<Outcome> {
      const outcome = new Promise<Outcome>((resolve) => waiting.set(fact.body.id, resolve));
      await keep({ ...fact, aside: null, isKept: false, failureCount: 0 });
      void flush();
      return outcome;
    },
    /** What an earlier visit left here goes first. */
    restore: flush,
    /** Another page changed the shared outbox: what it left is sent here, if it does not do so itself. */
    takeUp: flush,
    /** A fact that stood aside once more, after something was mended. */
    async again(fact: QueuedFact): Promise<void> {
      await keep({ ...fact, aside: null, failureCount: 0 });
      await flush();
    },
    /** Somebody else is in, or somebody at all: what was not theirs to send is tried again. */
    async resume(): Promise<void> {
      for (const fact of world.queued()) {
        if (fact.aside?.isForAnother) await keep({ ...fact, aside: null });
      }
      await flush();
    },
    /** A person lets a fact go that stood aside. */
    letGo: (id: string) => leave(id, { state: "stored" }),
    /** Before an edit goes: what was confirmed before it. False where the server is silent. */
    sendBefore: sendOf,
    /** The network is back, or a person asks. */
    flush,
  };
}
