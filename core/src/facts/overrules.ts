import type { FactMoment } from "../readings/factMoment";
export const verdictWords = ["sound", "worn", "failed", "cannot_tell", "not_measured"] as const;
export type VerdictWord = (typeof verdictWords)[number];

/** What a person decided about a part; a later one of the same part overrides, null takes it back. */
export interface VerdictOverrule extends Pick<FactMoment, "sequence"> {
  readonly fittedPartId: string;
  readonly verdict: VerdictWord | null;
  readonly reason: string;
  readonly at: string;
}
