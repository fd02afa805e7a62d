import { type SetStateAction, useCallback, useEffect, useState } from "react";

const shelf = "pale-cap draft ";

/** What was typed and not stored yet, as this computer keeps it; nothing where it keeps nothing. */
export function readDraft<T>(name: string): T | undefined {
  try {
    const text = localStorage.getItem(shelf + name);
    return text === null ? undefined : (JSON.parse(text) as T);
  } catch {
    return undefined;
  }
}

/** Keeps a draft, or forgets it where nothing differs from what is stored. */
export function writeDraft(name: string, value: unknown, isUnchanged: boolean): void {
  try {
    if (isUnchanged) localStorage.removeItem(shelf + name);
    else localStorage.setItem(shelf + name, JSON.stringify(value));
  } catch {
    // A browser that keeps nothing still has the field itself.
  }
}

/** Throws a draft away that a form elsewhere may hold. */
export const dropDraft = (name: string): void => writeDraft(name, null, true);

/** Throws away everything that was typed of some things: the name of a draft holds the id of what it is of. */
export function dropDraftsOf(ids: readonly string[]): void {
  try {
    for (const key of Object.keys(localStorage)) {
      if (key.startsWith(shelf) && ids.some((id) => key.includes(id))) localStorage.removeItem(key);
    }
  } catch {
    // Nothing is kept, so nothing has to go.
  }
}

/**
 * State of a field or form that survives a closed tab until it is stored or thrown away by a person. A draft of another
 * name (another part, another job) is another one.
 *
 * @param name what it is a draft of, unique in the shop
 * @param start what stands there without one
 * @returns the value; how to change it; how to drop it, always or only where it still says what was stored of it: an
 * answer of the server never empties a field into which something was typed since
 */
export function useDraft<T>(name: string, start: T) {
  const [held, setHeld] = useState(() => ({ name, value: readDraft<T>(name) }));
  // The name changed under the field: what was typed stays with the old one.
  const current = held.name === name ? held : { name, value: readDraft<T>(name) };
  if (current !== held) setHeld(current);
  const value = current.value ?? start;
  const set = useCallback(
    (next: SetStateAction<T>) =>
      setHeld((now) => {
        const before = (now.name === name ? now.value : readDraft<T>(name)) ?? start;
        const after = typeof next === "function" ? (next as (before: T) => T)(before) : next;
        const isUnchanged = JSON.stringify(after) === JSON.stringify(start);
        writeDraft(name, after, isUnchanged);
        return { name, value: isUnchanged ? undefined : after };
      }),
    [name, start],
  );
  const drop = useCallback(
    (stored?: T) =>
      setHeld((now) => {
        const isSame = stored === undefined || JSON.stringify(now.value ?? start) === JSON.stringify(stored);
        if (now.name !== name || !isSame) return now;
        writeDraft(name, null, true);
        return { name, value: undefined };
      }),
    [name, start],
  );
  // What stands there is stored by now: a draft of it would only outlive it.
  const isStored = current.value !== undefined && JSON.stringify(current.value) === JSON.stringify(start);
  useEffect(() => {
    if (isStored) drop();
  }, [isStored, drop]);
  return [value, set, drop] as const;
}
