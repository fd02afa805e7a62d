import type { FactAnswer, Fault, NewReading, Problem, ProblemCode } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import type { Fact, QueuedFact } from "./fact";
import { createSender } from "./sender";

const problem = (
  status: number,
  code: ProblemCode,
  field: Fault = { code: "above_most", values: { most: 5 } },
): Problem => ({
  type: "about:blank",
  title: "Cannot be stored",
  status,
  code,
  detail: "",
  errors: [{ path: "value", ...field }],
});
const silence = problem(0, "unavailable");
const refusal = problem(422, "invalid_body");
const fact = (id: string, jobId = "job"): Fact => ({ kind: "reading", jobId, body: { id } as NewReading });
const queued = (id: string, more: Partial<QueuedFact> = {}) =>
  ({ ...fact(id), aside: null, isKept: true, failureCount: 0, ...more }) as QueuedFact;

type Says = (fact: Fact) => Problem | undefined;

/** What a server says of a batch: of each fact by itself, or of the whole where it says `whole`. */
function world(says: Says, whole: (facts: readonly Fact[]) => Problem | undefined = () => undefined) {
  const kept = new Map<string, QueuedFact>();
  let facts: readonly QueuedFact[] = [];
  const seen = {
    pauses: [] as number[],
    sent: [] as string[],
    requests: 0,
    stored: [] as string[],
    elsewhere: [] as string[],
    isOpen: true,
    isAnswering: true,
  };
  const timers = new Set<() => void>();
  const broken = { storage: false };
  const guarded = async <T>(work: () => T): Promise<T> => {
    if (broken.storage) throw new Error("storage does not open");
    return work();
  };
  const sender = createSender({
    send: async (_jobId, batch) => {
      seen.requests += 1;
      seen.sent.push(...batch.map((one) => one.body.id));
      const refused = whole(batch);
      if (refused) return refused;
      return batch.map((one): FactAnswer => {
        const said = says(one);
        const { kind } = one;
        return said ? { id: one.body.id, kind, problem: said } : { id: one.body.id, kind, rows: {} };
      });
    },
    storage: {
      put: (one) => guarded(() => void kept.set(one.body.id, one)),
      remove: (id) => guarded(() => void kept.delete(id)),
      all: () => guarded(() => [...kept.values()]),
    },
    queued: () => facts,
    laid: (laid) => {
      const ids = new Set(laid.map((one) => one.body.id));
      facts = [...facts.filter((one) => !ids.has(one.body.id)), ...laid].sort((a, b) =>
        a.body.id < b.body.id ? -1 : 1,
      );
    },
    stored: (one) => seen.stored.push(one.body.id),
    left: (id) => {
      facts = facts.filter((one) => one.body.id !== id);
    },
    storedElsewhere: (jobId) => seen.elsewhere.push(jobId),
    heard: (isAnswering) => {
      seen.isAnswering = isAnswering;
    },
    storageOpens: (isOpen) => {
      seen.isOpen = isOpen;
    },
    exclusively: (work) => work(),
    inTurn: (_jobId, work) => work(),
    wait: (milliseconds, then) => {
      seen.pauses.push(milliseconds);
      timers.add(then);
      return () => timers.delete(then);
    },
  });
  const settle = () => new Promise((resolve) => setTimeout(resolve, 5));
  return {
    sender,
    kept,
    seen,
    timers,
    broken,
    settle,
    waiting: () => facts.filter((one) => one.aside === null).map((one) => one.body.id),
    asides: () => facts.filter((one) => one.aside !== null),
    keptHere: () => facts.filter((one) => one.isKept).map((one) => one.body.id),
    ring: async () => {
      for (const then of [...timers]) {
        timers.delete(then);
        then();
      }
      await settle();
    },
  };
}

describe("the outbox", () => {
  it("keeps a fact on this computer until the server has it", async () => {
    const { sender, kept, waiting, seen } = world(() => undefined);
    expect(await sender.submit(fact("a"))).toEqual({ state: "stored" });
    expect([kept.size, waiting(), seen.stored]).toEqual([0, [], ["a"]]);
  });

  it("waits in silence with growing pauses, then sends everything together, in order, each once", async () => {
    let isUp = false;
    const { sender, kept, seen, ring } = world(
      () => undefined,
      () => (isUp ? undefined : silence),
    );
    expect(await sender.submit(fact("a"))).toEqual({ state: "waiting" });
    await sender.submit(fact("b"));
    await ring();
    await ring();
    expect(kept.size).toBe(2);
    expect(seen.pauses).toEqual([1000, 2000, 4000, 8000]);
    expect(seen.isAnswering).toBe(false);
    isUp = true;
    seen.sent.length = 0;
    seen.requests = 0;
    await ring();
    expect([seen.sent, seen.requests]).toEqual([["a", "b"], 1]);
    expect([kept.size, seen.isAnswering]).toEqual([0, true]);
  });

  it("has one timer, however many facts wait", async () => {
    const { sender, timers, seen, ring, settle } = world(
      () => undefined,
      () => silence,
    );
    for (let n = 0; n < 20; n++) await sender.submit(fact(`a${String(n).padStart(2, "0")}`));
    await settle();
    expect(timers.size).toBe(1);
    seen.requests = 0;
    await ring();
    expect([timers.size, seen.requests]).toEqual([1, 1]);
    expect(Math.max(...seen.pauses)).toBeLessThanOrEqual(30_000);
  });

  it("starts over with short pauses once the server has answered", async () => {
    let isUp = false;
    const { sender, seen, ring } = world(
      () => undefined,
      () => (isUp ? undefined : silence),
    );
    await sender.submit(fact("a"));
    await ring();
    isUp = true;
    await ring();
    isUp = false;
    seen.pauses.length = 0;
    await sender.submit(fact("b"));
    expect(seen.pauses).toEqual([1000]);
  });

  it("lets a refused fact step aside, visible and kept, and the others pass", async () => {
    const { sender, kept, asides, seen } = world((one) => (one.body.id === "bad" ? refusal : undefined));
    expect(await sender.submit(fact("bad"))).toMatchObject({ state: "refused" });
    expect(await sender.submit(fact("good"))).toEqual({ state: "stored" });
    expect(asides().map((one) => one.aside)).toEqual([
      { refusal: "Cannot be stored. value must be at most 5", isTrouble: false },
    ]);
    expect(kept.get("bad")?.aside?.refusal).toBe("Cannot be stored. value must be at most 5");
    expect(seen.sent).toEqual(["bad", "good"]);
    await sender.letGo("bad");
    expect([kept.size, asides()]).toEqual([0, []]);
  });

  it("keeps for another what this person may not send, says so, and sends it when somebody else is in", async () => {
    let isHers = false;
    const notYours: Problem = {
      ...refusal,
      status: 403,
      code: "not_allowed",
      detail: "Somebody else signed this.",
      errors: [],
    };
    const { sender, kept, asides, seen } = world((one) => (one.body.id === "hers" && !isHers ? notYours : undefined));
    expect(await sender.submit(fact("hers"))).toMatchObject({ state: "refused" });
    await sender.submit(fact("mine"));
    expect(asides().map((one) => one.aside)).toEqual([
      { refusal: "Somebody else signed this.", isTrouble: false, isForAnother: true },
    ]);
    await sender.resume();
    expect(kept.has("hers")).toBe(true);
    isHers = true;
    await sender.resume();
    expect([kept.size, asides(), seen.sent]).toEqual([0, [], ["hers", "mine", "hers", "hers"]]);
  });

  it("sets a fact aside over which the server fails twice, and not sooner; those behind it go on", async () => {
    const { sender, asides, waiting, seen, ring, settle } = world((one) =>
      one.body.id === "bad" ? problem(500, "internal") : undefined,
    );
    void sender.submit(fact("bad"));
    expect(await sender.submit(fact("good"))).toEqual({ state: "stored" });
    await settle();
    expect([waiting(), asides()]).toEqual([["bad"], []]);
    await ring();
    expect(asides().map((one) => [one.body.id, one.aside?.isTrouble])).toEqual([["bad", true]]);
    expect(seen.stored).toEqual(["good"]);
  });

  it("finds out which fact of a batch the server cannot take, where it takes none of them", async () => {
    const { sender, asides, seen, waiting } = world(
      () => undefined,
      (facts) => (facts.some((one) => one.body.id === "b") ? refusal : undefined),
    );
    const outcomes = Promise.all(["a", "b", "c"].map((id) => sender.submit(fact(id))));
    expect((await outcomes).map((one) => one.state)).toEqual(["stored", "refused", "stored"]);
    expect([seen.stored, waiting(), asides().map((one) => one.body.id)]).toEqual([["a", "c"], [], ["b"]]);
  });

  it.each(["not_signed_in", "not_allowed", "too_many", "unavailable"] as const)(
    "takes %s for a reason to wait, not for a refusal",
    async (code) => {
      const { sender, asides, waiting } = world(
        () => undefined,
        () => problem(403, code),
      );
      expect(await sender.submit(fact("a"))).toEqual({ state: "waiting" });
      expect([waiting(), asides()]).toEqual([["a"], []]);
    },
  );

  it("takes up what an earlier visit left", async () => {
    const { sender, kept, seen } = world(() => undefined);
    kept.set("a", queued("a"));
    kept.set("b", queued("b", { aside: { refusal: "was refused", isTrouble: false } }));
    await sender.restore();
    expect(seen.sent).toEqual(["a"]);
    expect([...kept.keys()]).toEqual(["b"]);
  });

  it("tries a fact that stood aside again when a person asks", async () => {
    let isMended = false;
    const { sender, asides, seen } = world(() => (isMended ? undefined : refusal));
    await sender.submit(fact("a"));
    isMended = true;
    await sender.again(asides()[0] as QueuedFact);
    expect([asides(), seen.stored]).toEqual([[], ["a"]]);
  });
});

describe("where storage does not open", () => {
  it("stores every fact of a burst, and says that nothing is kept here", async () => {
    const { sender, seen, broken, keptHere, waiting } = world(() => undefined);
    broken.storage = true;
    const outcomes = await Promise.all(["a", "b", "c", "d", "e"].map((id) => sender.submit(fact(id))));
    expect(outcomes.map((one) => one.state)).toEqual(Array(5).fill("stored"));
    expect(seen.stored).toEqual(["a", "b", "c", "d", "e"]);
    expect([seen.isOpen, keptHere(), waiting()]).toEqual([false, [], []]);
  });

  it("does not call a waiting fact kept", async () => {
    const { sender, broken, keptHere, waiting } = world(
      () => undefined,
      () => silence,
    );
    broken.storage = true;
    await sender.submit(fact("a"));
    expect([waiting(), keptHere()]).toEqual([["a"], []]);
  });
});

describe("two pages of one browser", () => {
  it("share one outbox: what one left the other sends, what one stored the other lets go", async () => {
    let isUp = false;
    const { sender, kept, seen, waiting } = world(
      () => undefined,
      () => (isUp ? undefined : silence),
    );
    await sender.submit(fact("b", "mine"));
    // The other page sent this one's fact, and confirmed one of its own.
    kept.delete("b");
    kept.set("a", queued("a"));
    await sender.takeUp();
    expect([waiting(), seen.elsewhere]).toEqual([["a"], ["mine"]]);
    isUp = true;
    await sender.takeUp();
    expect([waiting(), seen.stored, kept.size]).toEqual([[], ["a"], 0]);
  });
});
