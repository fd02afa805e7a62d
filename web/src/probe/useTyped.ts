import { type ObservedSubject, printedPrefix, type QuantityKind, type Section, type Unit } from "@pale-cap/core";
import { useAppDispatch, useAppSelector } from "../app/store/hooks";
import { decadeShifted, type ProbeTarget } from "../job/workplaceSlice";
import { useDraft } from "../ui/useDraft";
import { barPrefix, shiftPrefix } from "./barPrefix";
import { readTyped, type TypedReading } from "./readTyped";
import { typedQuantity } from "./typedQuantity";

const mostShift = 2;

/** What stands in the bar's field: kept with its target until it is logged, also when the page is closed. */
export function useTyped(
  jobId: string,
  target: ProbeTarget | undefined,
  section: Section | null,
  subject: ObservedSubject,
) {
  const place = `${jobId} probe ${target?.id ?? ""} ${target?.terminals ?? ""}${target?.isNewPart ? " new" : ""}`;
  const [text, setText, dropText] = useDraft(place, "");
  const decades = useAppSelector((state) => state.workplace.decades);
  const dispatch = useAppDispatch();
  const [spoken, number] = typedQuantity(text);
  const keyOf = (quantity: QuantityKind) => `${jobId} ${section ?? ""} ${quantity}`;
  return {
    text,
    setText,
    dropText,
    /** The quantity that was named in front of the number. */
    spoken,
    /** Kept for this quantity in this section of the job, until it is shifted back. */
    shiftDecade: (quantity: QuantityKind, by: number) => {
      const key = keyOf(quantity);
      dispatch(decadeShifted({ key, shift: Math.min(Math.max((decades[key] ?? 0) + by, -mostShift), mostShift) }));
    },
    /** The number as it is understood for a quantity, a bare one in the prefix of the section. */
    understood: (quantity: QuantityKind, unit: Unit) => {
      const prefix = shiftPrefix(barPrefix(quantity, section), decades[keyOf(quantity)] ?? 0);
      const read: TypedReading = readTyped(number, quantity, unit, prefix, subject);
      return { ...read, prefix, printedUnit: `${printedPrefix(prefix)}${unit}` };
    },
  };
}
