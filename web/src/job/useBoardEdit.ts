import type { BoardChange, Problem } from "@pale-cap/contract";
import { useCallback } from "react";
import { newId } from "../api/newId";
import { asProblem } from "../ui/ProblemNote";
import { useJob } from "./JobContext";
import { useEditBoardMutation } from "./jobApi";

/** Sends one all-or-nothing batch of edits to the board; resolves to the problem, or undefined when it was stored. */
export function useBoardEdit() {
  const { detail } = useJob();
  const [editBoard, { error, isLoading }] = useEditBoardMutation();
  const jobId = detail.job.id;
  const edit = useCallback(
    async (changes: readonly BoardChange[]): Promise<Problem | undefined> => {
      const answer = await editBoard({ jobId, body: { id: newId(), changes } });
      return asProblem(answer.error);
    },
    [editBoard, jobId],
  );
  return [edit, { problem: asProblem(error), isLoading }] as const;
}
