import type { JobDetail } from "@pale-cap/contract";
import { clear, createStore, delMany, get, keys, set, type UseStore } from "idb-keyval";

/** What was read when the server last answered, and when that was by this page's clock. */
export interface OfflineCopy {
  readonly data: unknown;
  readonly at: number;
}

/** Answers that are worth having without the server: the open jobs and what a lens of them needs. */
export const copiedEndpoints: readonly string[] = [
  ...["job", "houseRules", "people", "bench", "workbenches", "instruments", "boardTypeOfJob", "shop"],
];

let shelf: UseStore | null = null;
const onShelf = (): UseStore => {
  shelf ??= createStore("pale-cap-offline", "copies");
  return shelf;
};
/** Where others may listen on the way nothing is kept beside what was entered here. */
const isKept = () => globalThis.isSecureContext && "indexedDB" in globalThis;

let oldest: number | null = null;
const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};

/** From when the oldest copy is that this page shows instead of an answer; null: it shows none. */
export const shownCopies = {
  oldestAt: () => oldest,
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  /** The server answered again: what is shown is read anew. */
  over(): void {
    oldest = null;
    tell();
  },
};

export async function keepOfflineCopy(key: string, endpoint: string, data: unknown, at: number): Promise<void> {
  if (!isKept()) return;
  const copy: OfflineCopy = { data: endpoint === "job" ? withoutCustomer(data as JobDetail) : data, at };
  await set(key, copy, onShelf()).catch(() => undefined);
}

/** A copy in the place of an answer that does not come; what it is of is told as old. */
export async function takeOfflineCopy(key: string): Promise<unknown> {
  if (!isKept()) return undefined;
  const copy = await get<OfflineCopy>(key, onShelf()).catch(() => undefined);
  if (!copy) return undefined;
  oldest = Math.min(oldest ?? copy.at, copy.at);
  tell();
  return copy.data;
}

/** Jobs that are not open here any more are not kept here. */
export async function keepOnly(isWanted: (key: string) => boolean): Promise<void> {
  if (!isKept()) return;
  try {
    const all = (await keys(onShelf())) as string[];
    await delMany(
      all.filter((key) => !isWanted(key)),
      onShelf(),
    );
  } catch {
    // What cannot be read cannot be shown either.
  }
}

/** Signed out: nothing of the shop's jobs stays in this browser but what was entered and is not stored yet. */
export async function forgetOfflineCopies(): Promise<void> {
  if (isKept()) await clear(onShelf()).catch(() => undefined);
}

/** Whose the unit is, how they are reached, what they said and who answered to a quote: none of it is needed to measure. */
export function withoutCustomer(detail: JobDetail): JobDetail {
  return {
    ...detail,
    job: { ...detail.job, customerName: null, customerContact: null, ownersWords: null },
    quotes: detail.quotes.map((one) => ({ ...one, note: null })),
    quoteAnswers: detail.quoteAnswers.map((one) => ({ ...one, byWhom: "somebody" })),
  };
}
