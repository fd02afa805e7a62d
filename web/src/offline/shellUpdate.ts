let take: (() => void) | null = null;
const listeners = new Set<() => void>();

/** Whether a newer client waits, and how it is taken. */
export const shellUpdate = {
  get: () => take,
  found(how: () => void): void {
    take = how;
    for (const listener of listeners) listener();
  },
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
};
