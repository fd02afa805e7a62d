import type { NewReading } from "@pale-cap/contract";
import { useCallback } from "react";
import { readingConfirmed, readingRefused, readingSettled } from "../job/benchSlice";
import { useAppDispatch } from "../job/hooks";
import { useLogReadingMutation } from "../job/jobApi";
import { asProblem } from "../ui/ProblemNote";

/**
 * Sends a confirmed reading. It is kept at this bench until the server has stored it; the id stays the same, so that
 * sending again cannot double it.
 */
export function useSendReading(jobId: string) {
  const dispatch = useAppDispatch();
  const [logReading] = useLogReadingMutation();
  return useCallback(
    async (body: NewReading): Promise<void> => {
      dispatch(readingConfirmed({ jobId, body }));
      const answer = await logReading({ jobId, body });
      const problem = asProblem(answer.error);
      if (!problem) dispatch(readingSettled(body.id));
      else dispatch(readingRefused({ id: body.id, refusal: `${problem.title}. ${problem.errors[0]?.message ?? ""}` }));
    },
    [dispatch, logReading, jobId],
  );
}
