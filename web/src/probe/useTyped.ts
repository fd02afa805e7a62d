import { printedPrefix, type QuantityKind, type Unit } from "@pale-cap/core";
import { useState } from "react";
import type { ProbeTarget } from "../job/workplaceSlice";
import { useDraft } from "../ui/useDraft";
import { expectedPrefix, shiftPrefix } from "./barPrefix";
import { readTyped, type TypedReading } from "./readTyped";
import { typedQuantity } from "./typedQuantity";

const mostShift = 2;

/** What stands in the bar's field: kept with its target until it is logged, also when the page is closed. */
export function useTyped(jobId: string, target: ProbeTarget | undefined) {
  const place = `${jobId} probe ${target?.id ?? ""} ${target?.terminals ?? ""}${target?.isNewPart ? " new" : ""}`;
  const [text, setText, dropText] = useDraft(place, "");
  const [shift, setShift] = useState(0);
  const [spoken, number] = typedQuantity(text);
  return {
    text,
    setText,
    dropText,
    /** The quantity that was named in front of the number. */
    spoken,
    shiftDecade: (by: number) => setShift((now) => Math.min(Math.max(now + by, -mostShift), mostShift)),
    resetDecade: () => setShift(0),
    /** The number as it is understood for a quantity, a bare one in the prefix of what is expected. */
    understood: (quantity: QuantityKind, unit: Unit, expectedHigh: number | null) => {
      const prefix = shiftPrefix(expectedPrefix(quantity, expectedHigh), shift);
      const read: TypedReading = readTyped(number, quantity, unit, prefix);
      return { ...read, prefix, printedUnit: `${printedPrefix(prefix)}${unit}` };
    },
  };
}
