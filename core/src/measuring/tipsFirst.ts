import { tradeConstants } from "../constants/tradeConstants";
import type { PartJudgement } from "../judgement/verdict";

const { askFromRatio, askFromReadings } = tradeConstants.judgement.leads;

/** Whether the tips go together before anything else: the board's readings may all carry what the leads add. */
export function areTipsFirst(judgements: ReadonlyMap<string, PartJudgement>): boolean {
  const [first] = judgements.values();
  if (!first || first.leads.isMeasured) return false;
  return first.leads.readingCount >= askFromReadings && first.leads.probability >= askFromRatio;
}
