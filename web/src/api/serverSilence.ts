import { type Readiness, routes } from "@pale-cap/contract";

/** How often is asked whether it is back. */
const probeMilliseconds = 2000;

let isSilent = false;
let timer: ReturnType<typeof setTimeout> | null = null;
const listeners = new Set<() => void>();

function tell(next: boolean): void {
  if (isSilent === next) return;
  isSilent = next;
  for (const listener of listeners) listener();
}

/** The server or its database gave no answer: it is asked for, quietly, until it is back. */
export function serverFellSilent(): void {
  tell(true);
  timer ??= setTimeout(probe, probeMilliseconds);
}

export function serverAnswered(): void {
  if (timer) clearTimeout(timer);
  timer = null;
  tell(false);
}

async function probe(): Promise<void> {
  timer = null;
  // Whether the process lives does not help: what is stored has to be reached.
  const isBack = await fetch(routes.ready, { signal: AbortSignal.timeout(5000) })
    .then((answer) => answer.json() as Promise<Readiness>)
    .then(({ checks }) => checks.database === "ok" && checks.stopping === "ok")
    .catch(() => false);
  if (isBack) serverAnswered();
  else if (isSilent) timer ??= setTimeout(probe, probeMilliseconds);
}

/** Whether it is silent, for whoever shows it or waits for it. */
export const serverSilence = {
  get: () => isSilent,
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
};
