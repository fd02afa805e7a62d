import type { PartJudgement } from "./verdict";
/** Failed, or with a vent, leak or lifted base: it goes, whatever else is said. */
export function needsReplacement(judgement: PartJudgement): boolean {
  return judgement.verdict === "failed" || judgement.mustReplace;
}
