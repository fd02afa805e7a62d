import type { HandAct, PracticeState } from "@pale-cap/contract";
import { useCallback } from "react";
import { useAppSelector } from "../../app/store/hooks";
import { useSubmit } from "../../outbox/useSubmit";
import { asProblem } from "../../ui/ProblemNote";
import { useJob } from "../JobContext";
import { mainsFact } from "../mainsFact";
import { useHandActMutation, usePracticeQuery, useTakeHintMutation } from "../practiceApi";

/** How often the page looks what came of a reading, in milliseconds. */
const lookAgain = 2500;

/** The practice supply of the job on screen; null where it has none, or is nobody's at all. */
export function usePractice(): PracticeState | null {
  const { detail } = useJob();
  const isPractice = detail.job.realm === "practice";
  return usePracticeQuery(detail.job.id, { skip: !isPractice, pollingInterval: 0 }).data ?? null;
}

/** Whether the next step is the learner's own: what to read is not told while a practice supply is open. */
export function useIsOwnStep(): boolean {
  const practice = usePractice();
  return practice !== null && practice.result === null;
}

/** Hands on the practice supply of this job. */
export function useHands() {
  const { detail } = useJob();
  const jobId = detail.job.id;
  const practice = usePracticeQuery(jobId, {
    skip: detail.job.realm !== "practice",
    pollingInterval: lookAgain,
    skipPollingIfUnfocused: true,
  });
  const personId = useAppSelector((state) => state.workplace.personId);
  const [send, { error, isLoading }] = useHandActMutation();
  const [hint, { error: hintError }] = useTakeHintMutation();
  const [submit] = useSubmit();
  const act = useCallback(
    async (wanted: HandAct) => {
      const answer = await send({ jobId, act: wanted, personId });
      if ("error" in answer || wanted.kind !== "mains") return;
      // The job learns that the mains was connected, as from any mains source of the bench.
      await submit(mainsFact(jobId, wanted.isOn === true, personId));
    },
    [send, submit, jobId, personId],
  );
  const takeHint = useCallback((level: number) => hint({ jobId, level, personId }), [hint, jobId, personId]);
  return {
    practice: practice.data ?? null,
    act,
    takeHint,
    isActing: isLoading,
    problem: asProblem(error ?? hintError ?? practice.error),
  };
}
