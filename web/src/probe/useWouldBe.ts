import { isUnderDrain, judgePosition, notStored, type QuantityKind } from "@pale-cap/core";
import { useMemo } from "react";
import { useAppSelector } from "../app/store/hooks";
import { useJob } from "../job/JobContext";
import { probedPart } from "../job/looseParts";
import type { ProbeTarget } from "../job/workplaceSlice";
import { draftReading } from "./draftReading";

/** A live value that flickers in its last digit is not judged anew each time. */
const judgedDigits = 2;

/**
 * What the verdict on the part at the target would be if the value were logged.
 *
 * Of the part that sits there now, on the page itself and for one place; the verdict of the other screens is of the part
 * as the round found it, in a worker and for the whole board (JobJudge). Both are core's judgement of one board: until something is
 * replaced they are the same, and after that the bar must speak of the new part.
 */
export function useWouldBe(target: ProbeTarget | undefined, quantity: QuantityKind, value: number | null) {
  const { detail, facts, rules, chargeStates } = useJob();
  const isDrainOn = target !== undefined && isUnderDrain(detail, chargeStates, target.id);
  const settings = useAppSelector((state) => state.workplace.probe);
  const judged = value === null ? null : Number(value.toPrecision(judgedDigits));
  return useMemo(() => {
    if (target?.kind !== "part") return undefined;
    const draft =
      judged === null
        ? null
        : draftReading({ detail, target, quantity, read: { value: judged, code: null }, settings, isDrainOn });
    const readings = draft ? [...facts.readings, { ...draft, ...notStored }] : facts.readings;
    const { where } = probedPart(detail, target);
    const which = where === "in_place" ? "current" : where === "in_hand" ? "in_hand" : "found";
    return judgePosition({ ...facts, readings }, target.id, rules.judgement, which);
  }, [detail, facts, rules, target, judged, quantity, settings, isDrainOn]);
}
