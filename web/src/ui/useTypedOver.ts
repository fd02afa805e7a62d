import { useEffect, useReducer, useRef } from "react";
import { readDraft, writeDraft } from "./useDraft";

/**
 * Whether somebody else stored another text in a field since it began to be typed in.
 *
 * @param name of the field's draft
 * @param value as it is stored
 * @param text as it is typed
 * @returns how to say that a text was sent, which is then no stranger's
 */
export function useTypedOver(name: string, value: string, text: string) {
  const place = `${name} over`;
  const [, drawAgain] = useReducer((count: number) => count + 1, 0);
  const known = useRef<{ readonly name: string; texts: Set<string> }>({ name: "", texts: new Set() });
  if (known.current.name !== name) {
    known.current = { name, texts: new Set([readDraft<string>(place) ?? value]) };
  }
  const isTyped = text !== value;
  if (!isTyped) known.current.texts = new Set([value]);
  const [first = value] = known.current.texts;
  useEffect(() => writeDraft(place, first, !isTyped), [place, first, isTyped]);
  return {
    isConflict: isTyped && !known.current.texts.has(value),
    sent: (sentText: string) => {
      known.current.texts.add(sentText);
    },
    /** A person saw both: what is stored now is what they type over. */
    seen: () => {
      known.current.texts = new Set([value]);
      drawAgain();
    },
  };
}
