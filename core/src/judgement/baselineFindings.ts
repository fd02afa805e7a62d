import type { BaselineValue } from "../board/baseline";
import { groupReadings, isSameFrequency, type ReadingGroup } from "../readings/groupReadings";
import { baselineLikelihood } from "./baselineLikelihood";
import type { JudgementQuestion } from "./verdict";

/** A reading beside the same reading on a good board of the same type. */
export interface BaselineFinding {
  readonly group: ReadingGroup;
  readonly baseline: BaselineValue;
  readonly weight: number;
}

/** ESR readings for which the board type knows what a good one reads at this place, in the same state. */
export function baselineFindings(question: JudgementQuestion): readonly BaselineFinding[] {
  const { baseline = [] } = question;
  if (baseline.length === 0) return [];
  return groupReadings(question.readings, "esr").flatMap((group): BaselineFinding[] => {
    const known = baseline.find(
      (one) =>
        one.quantity === "esr" &&
        one.isInCircuit === group.isInCircuit &&
        isSameFrequency(one.frequencyHertz, group.frequencyHertz),
    );
    if (!known || !(group.value > 0)) return [];
    const weight = baselineLikelihood(group.value, known);
    return known.isOfBrothers && weight === 0 ? [] : [{ group, baseline: known, weight }];
  });
}
