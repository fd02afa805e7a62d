import {
  type JobChange,
  type JobFacts,
  type JobJudgement,
  type JobRules,
  judgeBoard,
  judgeDevices,
  roundView,
} from "@pale-cap/core";
import { type Remote, wrap } from "comlink";
import { useEffect, useMemo, useState } from "react";
import type { JudgementWorker } from "./judgementWorker";

let remote: Remote<JudgementWorker> | undefined;
/** What the worker was last told. */
let told: { readonly jobId: string; readonly facts: JobFacts; readonly rules: JobRules } | undefined;

interface Answer extends JobJudgement {
  readonly jobId: string;
}

/**
 * Verdicts and explanations of a job, judged off the main thread: what changed goes over, what was judged comes back, and
 * the last answer stays until the next is there. The job goes over whole; its current round is judged. Only the first picture of a job is judged here, without explanations.
 */
export function useJobJudgement(jobId: string, facts: JobFacts, rules: JobRules): JobJudgement {
  const [answer, setAnswer] = useState<Answer>();
  useEffect(() => {
    remote ??= wrap<JudgementWorker>(new Worker(new URL("./judgementWorker.ts", import.meta.url), { type: "module" }));
    const before = told?.jobId === jobId ? told : undefined;
    told = { jobId, facts, rules };
    const asked = before ? remote.change(changeBetween(before, facts, rules)) : remote.open(facts, rules);
    let isCurrent = true;
    void asked.then((found) => {
      if (isCurrent && found) setAnswer({ jobId, ...found });
    });
    return () => {
      isCurrent = false;
    };
  }, [jobId, facts, rules]);
  const isAnswered = answer?.jobId === jobId;
  const first = useMemo(
    () =>
      isAnswered
        ? null
        : {
            judgements: judgeBoard(roundView(facts), rules.judgement),
            devices: judgeDevices(roundView(facts)),
            explanation: null,
            ripple: [],
          },
    [isAnswered, facts, rules],
  );
  return isAnswered && answer ? answer : (first as JobJudgement);
}

function changeBetween(
  before: { readonly facts: JobFacts; readonly rules: JobRules },
  facts: JobFacts,
  rules: JobRules,
): JobChange {
  const changed = Object.entries(facts).filter(
    ([key, value]) => key !== "readings" && before.facts[key as keyof JobFacts] !== value,
  );
  const [had, has] = [new Set(before.facts.readings), new Set(facts.readings)];
  return {
    facts: Object.fromEntries(changed),
    rules: rules === before.rules ? null : rules,
    addedReadings: facts.readings.filter((one) => !had.has(one)),
    removedReadingIds: before.facts.readings.filter((one) => !has.has(one)).map((one) => one.id),
  };
}
