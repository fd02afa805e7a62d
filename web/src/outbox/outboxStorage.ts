import { createStore, del, set, values } from "idb-keyval";
import type { Fact, QueuedFact } from "./fact";

const shelf = createStore("pale-cap-outbox", "facts");

/** A fact as an earlier version of this page left it. */
type OlderFact = Fact & { readonly refusal?: string | null } & Partial<QueuedFact>;

/** Facts on this computer until the server has them; ids are ordered by time, so their order comes back with them. */
export const outboxStorage = {
  put: (fact: QueuedFact): Promise<void> => set(fact.body.id, fact, shelf),
  remove: (id: string): Promise<void> => del(id, shelf),
  async all(): Promise<readonly QueuedFact[]> {
    const facts = await values<OlderFact>(shelf);
    return facts.map(ofToday).sort((a, b) => (a.body.id < b.body.id ? -1 : 1));
  },
};

/** What was confirmed before facts named their clock is sent all the same: nobody knows its clock. */
function ofToday({ refusal, ...fact }: OlderFact): QueuedFact {
  return {
    ...fact,
    body: { ...fact.body, clockId: fact.body.clockId ?? null },
    aside: fact.aside ?? (refusal ? { refusal, isTrouble: false } : null),
    failureCount: fact.failureCount ?? 0,
    isKept: true,
  } as QueuedFact;
}
