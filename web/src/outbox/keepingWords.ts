import type { QueuedFact } from "./fact";

/** What this computer has of entries that wait for the server; nothing until each is written down or cannot be. */
export function keepingWords(waiting: readonly Pick<QueuedFact, "isKept">[], isStorageShut: boolean): string {
  if (isStorageShut) return "Nothing is kept on this computer: stay on this page until the server has them.";
  if (!waiting.every((one) => one.isKept)) return "";
  return `${waiting.length === 1 ? "It is" : "They are"} kept on this computer and sent when it does.`;
}

/** The same where somebody has to sign in first. */
export function untilThenWords(waiting: readonly Pick<QueuedFact, "isKept">[], isStorageShut: boolean): string {
  if (isStorageShut) return "Nothing is kept on this computer: stay on this page until then.";
  return waiting.every((one) => one.isKept) ? "Until then this computer keeps what was entered." : "";
}
