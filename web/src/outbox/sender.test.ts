import type { NewReading, Problem } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import type { Fact, QueuedFact } from "./fact";
import { createSender } from "./sender";

const silence = { status: 0, title: "The server does not answer", errors: [] } as unknown as Problem;
const refusal = {
  status: 422,
  title: "Cannot be stored",
  errors: [{ path: "value", message: "is too large" }],
} as unknown as Problem;
const fact = (id: string): Fact => ({ kind: "reading", jobId: "job", body: { id } as NewReading });

/** A world in which a test decides what the server says. */
function world(answers: (problem: Fact) => Problem | undefined) {
  const kept = new Map<string, QueuedFact>();
  let queued: readonly QueuedFact[] = [];
  const pauses: number[] = [];
  const sent: string[] = [];
  let later: (() => void) | undefined;
  const sender = createSender({
    send: async (one) => {
      sent.push(one.body.id);
      return answers(one);
    },
    storage: {
      put: async (one) => void kept.set(one.body.id, one),
      remove: async (id) => void kept.delete(id),
      all: async () => [...kept.values()],
    },
    queued: () => queued,
    confirmed: (one) => {
      queued = [...queued, one];
    },
    restored: (facts) => {
      queued = facts;
    },
    settled: (id) => {
      queued = queued.filter((one) => one.body.id !== id);
    },
    refused: (id, why) => {
      queued = queued.map((one) => (one.body.id === id ? { ...one, refusal: why } : one));
    },
    heard: () => undefined,
    wait: (milliseconds, then) => {
      pauses.push(milliseconds);
      later = then;
    },
  });
  const settle = () => new Promise((resolve) => setTimeout(resolve, 5));
  return {
    sender,
    kept,
    pauses,
    sent,
    waiting: () => queued.map((one) => one.body.id),
    resume: async () => {
      later?.();
      await settle();
    },
  };
}

describe("the outbox", () => {
  it("keeps a fact on this computer until the server has it", async () => {
    const { sender, kept, waiting } = world(() => undefined);
    expect(await sender.submit(fact("a"))).toEqual({ state: "stored" });
    expect([kept.size, waiting()]).toEqual([0, []]);
  });

  it("waits in silence with growing pauses, then sends everything in order, each once", async () => {
    let isUp = false;
    const { sender, kept, pauses, sent, resume } = world(() => (isUp ? undefined : silence));
    expect(await sender.submit(fact("a"))).toEqual({ state: "waiting" });
    void sender.submit(fact("b"));
    await resume();
    expect(kept.size).toBe(2);
    expect(pauses[1]).toBeGreaterThan(pauses[0] as number);
    isUp = true;
    sent.length = 0;
    await resume();
    expect(sent).toEqual(["a", "b"]);
    expect(kept.size).toBe(0);
  });

  it("lets a refused fact step aside, visible and kept, and the others pass", async () => {
    const { sender, kept, waiting, sent } = world((one) => (one.body.id === "bad" ? refusal : undefined));
    expect(await sender.submit(fact("bad"))).toMatchObject({ state: "refused" });
    expect(await sender.submit(fact("good"))).toEqual({ state: "stored" });
    expect(waiting()).toEqual(["bad"]);
    expect(kept.get("bad")?.refusal).toBe("Cannot be stored. is too large");
    expect(sent).toEqual(["bad", "good"]);
    await sender.letGo("bad");
    expect([kept.size, waiting()]).toEqual([0, []]);
  });

  it("takes up what an earlier visit left", async () => {
    const { sender, kept, sent } = world(() => undefined);
    kept.set("a", { ...fact("a"), refusal: null });
    kept.set("b", { ...fact("b"), refusal: "was refused" });
    await sender.restore();
    expect(sent).toEqual(["a"]);
    expect([...kept.keys()]).toEqual(["b"]);
  });
});
