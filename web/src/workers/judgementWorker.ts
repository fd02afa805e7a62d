import { type JobChange, type JobFacts, JobJudge, type JobJudgement, type JobRules } from "@pale-cap/core";
import { expose } from "comlink";

let judge: JobJudge | undefined;

const worker = {
  /** A job from its beginning: everything crosses over once. */
  open(facts: JobFacts, rules: JobRules): JobJudgement {
    judge = new JobJudge(facts, rules);
    return judge.judge();
  },
  /** What changed since; null where no job was opened. */
  change(change: JobChange): JobJudgement | null {
    judge?.take(change);
    return judge?.judge() ?? null;
  },
};

export type JudgementWorker = typeof worker;
expose(worker);
