import { createStore, del, set, values } from "idb-keyval";
import type { QueuedFact } from "./fact";

const shelf = createStore("pale-cap-outbox", "facts");

/** Facts on this computer until the server has them; ids are ordered by time, so their order comes back with them. */
export const outboxStorage = {
  put: (fact: QueuedFact): Promise<void> => set(fact.body.id, fact, shelf),
  remove: (id: string): Promise<void> => del(id, shelf),
  async all(): Promise<readonly QueuedFact[]> {
    const facts = await values<QueuedFact>(shelf);
    return facts.sort((a, b) => (a.body.id < b.body.id ? -1 : 1));
  },
};
