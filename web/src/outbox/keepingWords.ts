import type { QueuedFact } from "./fact";

type Kept = Pick<QueuedFact, "isKept">;

/** What this computer has of entries that wait for the server; they are kept once each is written down. */
export const keepingWords = (waiting: readonly Kept[], isStorageShut: boolean): string =>
  stayingWords(waiting, isStorageShut, "the server has them") ??
  `${waiting.length === 1 ? "It is" : "They are"} kept on this computer and sent when it does.`;

/** The same where somebody has to sign in first. */
export const untilThenWords = (waiting: readonly Kept[], isStorageShut: boolean): string =>
  stayingWords(waiting, isStorageShut, "then") ?? "Until then this computer keeps what was entered.";

/** Why the page must stay open; null where all is written down. */
function stayingWords(waiting: readonly Kept[], isStorageShut: boolean, until: string): string | null {
  if (isStorageShut) return `Nothing is kept on this computer: stay on this page until ${until}.`;
  if (waiting.every((one) => one.isKept)) return null;
  return `This computer does not keep all of it yet: stay on this page until ${until}.`;
}
