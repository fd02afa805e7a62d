const listeners = new Set<() => void>();

/** The server says that nobody is signed in here any more. */
export function sessionLost(): void {
  for (const listener of listeners) listener();
}

export function onSessionLost(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
