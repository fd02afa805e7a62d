import {
  type CoarseCode,
  coarseCodesOf,
  mayReadOpen,
  type ObservedSubject,
  overRangeCode,
  parseQuantity,
  type QuantityKind,
  type SiPrefix,
  type Unit,
} from "@pale-cap/core";
import { failureWords, outsideWords } from "@pale-cap/wording";
import type { ReadValue } from "./draftReading";

/** What the bar understands of what was typed. */
export interface TypedReading {
  readonly read: ReadValue | null;
  readonly problem: string | undefined;
  /** A number without prefix or unit: it was understood in the prefix of what is expected. */
  readonly isBare?: boolean;
}

const nothing: TypedReading = { read: null, problem: undefined };
const word = (code: CoarseCode): TypedReading => ({ read: { value: null, code }, problem: undefined });

/**
 * A number in the unit of the quantity; where the quantity is a word, the number of the word in its list, perhaps with a
 * note behind it; `ol` where a meter may read open.
 */
export function readTyped(
  text: string,
  quantity: QuantityKind,
  unit: Unit,
  prefix: SiPrefix,
  subject?: ObservedSubject,
): TypedReading {
  if (text.trim() === "") return nothing;
  const codes = coarseCodesOf(quantity, subject);
  if (codes) {
    const code = codes[Number(/^\s*(\d+)/.exec(text)?.[1]) - 1];
    return code ? word(code) : { read: null, problem: `Type the number of the word, 1 to ${codes.length}.` };
  }
  if (mayReadOpen(quantity) && /^\s*(ol?|open)\s*$/i.test(text)) return word(overRangeCode);
  const parsed = parseQuantity(text, unit, prefix);
  if (!parsed.ok) return { read: null, problem: failureWords(parsed.failure) };
  const outside = outsideWords(quantity, parsed.value, unit);
  if (outside) return { read: null, problem: outside };
  return { read: { value: parsed.value, code: null }, problem: undefined, isBare: parsed.isBare };
}
