import { useEffect, useRef } from "react";

/** A key of the current screen, as `?` lists it. */
export interface ScreenKey {
  /** `KeyboardEvent.key`, with `alt+` before it where needed. */
  readonly key: string;
  readonly label: string;
  readonly action: () => void;
}

const registered = new Set<{ readonly title: string; keys: readonly ScreenKey[] }>();

/** What `?` shows: every group of keys that a mounted screen registered. */
export function registeredKeys(): readonly { readonly title: string; readonly keys: readonly ScreenKey[] }[] {
  return [...registered];
}

/** Binds keys while a screen is mounted. Plain keys are left alone while somebody types in a field. */
export function useKeys(title: string, keys: readonly ScreenKey[]): void {
  const group = useRef({ title, keys });
  group.current.keys = keys;
  useEffect(() => {
    const own = group.current;
    registered.add(own);
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.defaultPrevented) return;
      const pressed = `${event.altKey ? "alt+" : ""}${event.key}`;
      const found = own.keys.find((one) => one.key === pressed);
      if (!found || (isTyping(event.target) && !event.altKey)) return;
      event.preventDefault();
      found.action();
    };
    document.addEventListener("keydown", listen);
    return () => {
      registered.delete(own);
      document.removeEventListener("keydown", listen);
    };
  }, []);
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest("input, textarea, select, [contenteditable], [role=dialog]") !== null
  );
}
