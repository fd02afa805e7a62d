import type { Problem } from "@pale-cap/contract";
import type { Fact, QueuedFact } from "./fact";

/** What became of a fact that was handed in: stored, safe here until the server answers, or refused. */
export type Outcome =
  | { readonly state: "stored" | "waiting" }
  | { readonly state: "refused"; readonly problem: Problem };

/** What the sender needs of the world: tests give their own. */
export interface OutboxWorld {
  readonly send: (fact: Fact) => Promise<Problem | undefined>;
  readonly storage: {
    put(fact: QueuedFact): Promise<void>;
    remove(id: string): Promise<void>;
    all(): Promise<readonly QueuedFact[]>;
  };
  readonly queued: () => readonly QueuedFact[];
  readonly confirmed: (fact: QueuedFact) => void;
  readonly restored: (facts: readonly QueuedFact[]) => void;
  readonly settled: (id: string) => void;
  readonly refused: (id: string, refusal: string | null) => void;
  readonly heard: (isAnswering: boolean) => void;
  readonly wait: (milliseconds: number, then: () => void) => void;
}

const firstPauseMilliseconds = 1000;
const longestPauseMilliseconds = 30_000;

/** No answer, or a server that could not: the fact is as good as before and is sent again. */
const isSilence = (problem: Problem) => problem.status === 0 || problem.status >= 500;

/**
 * Sends facts one after the other in the order in which they were confirmed. Each is on this computer before it is sent
 * and leaves it when the server has stored it; its id stays, so that sending again cannot double it. Silence stops the
 * line and is tried again with growing pauses; a refusal steps aside, stays visible, and lets the others pass.
 */
export function createSender(world: OutboxWorld) {
  const waiting = new Map<string, (outcome: Outcome) => void>();
  let isSending = false;
  let pause = firstPauseMilliseconds;

  function tell(id: string, outcome: Outcome): void {
    waiting.get(id)?.(outcome);
    waiting.delete(id);
  }

  async function flush(): Promise<void> {
    if (isSending) return;
    isSending = true;
    try {
      for (;;) {
        const next = world.queued().find((fact) => fact.refusal === null);
        if (!next) return;
        const problem = await world.send(next);
        if (problem && isSilence(problem)) {
          world.heard(false);
          for (const id of [...waiting.keys()]) tell(id, { state: "waiting" });
          world.wait(pause, () => void flush());
          pause = Math.min(2 * pause, longestPauseMilliseconds);
          return;
        }
        pause = firstPauseMilliseconds;
        world.heard(true);
        await (problem ? stepAside(next, problem) : leave(next.body.id, { state: "stored" }));
      }
    } finally {
      isSending = false;
    }
  }

  async function leave(id: string, outcome: Outcome): Promise<void> {
    await world.storage.remove(id);
    world.settled(id);
    tell(id, outcome);
  }

  async function stepAside(fact: QueuedFact, problem: Problem): Promise<void> {
    const refusal = [problem.title, ...problem.errors.slice(0, 1).map((one) => one.message)].join(". ");
    await world.storage.put({ ...fact, refusal });
    world.refused(fact.body.id, refusal);
    tell(fact.body.id, { state: "refused", problem });
  }

  return {
    /** Keeps a fact and sends it; resolves when it is stored, refused, or known to wait. */
    async submit(fact: Fact): Promise<Outcome> {
      const queued: QueuedFact = { ...fact, refusal: null };
      world.confirmed(queued);
      // Without storage (a private window) the fact is still sent; it only does not outlive the tab.
      await world.storage.put(queued).catch(() => undefined);
      const outcome = new Promise<Outcome>((resolve) => waiting.set(fact.body.id, resolve));
      void flush();
      return outcome;
    },
    /** What an earlier visit left here goes first. */
    async restore(): Promise<void> {
      world.restored(await world.storage.all().catch(() => []));
      await flush();
    },
    /** A refused fact once more, after something was mended. */
    async again(fact: QueuedFact): Promise<void> {
      await world.storage.put({ ...fact, refusal: null });
      world.refused(fact.body.id, null);
      await flush();
    },
    /** A person lets a refused fact go. */
    letGo: (id: string) => leave(id, { state: "stored" }),
    flush,
  };
}
