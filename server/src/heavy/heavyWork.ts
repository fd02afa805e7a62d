import type { Family, HouseRuleChange, RuleEffect } from "@pale-cap/contract";
import type { Judged } from "./judgeJob";

/** Judging and folding: long enough that no request may wait behind it. */
export interface HeavyWork {
  /** Something was written: summaries that it marked are folded soon. */
  poke(): void;
  /** Resolves when nothing is marked any more. */
  settled(): Promise<void>;
  ruleEffects(change: HouseRuleChange): Promise<readonly RuleEffect[]>;
  family(jobId: string): Promise<Family>;
  judgeJob(jobId: string): Promise<Judged>;
  /** Index of the first of these 32-bit floats that is no finite number; -1 where all are. */
  firstNotFinite(bytes: Uint8Array): Promise<number>;
  close(): Promise<void>;
}
