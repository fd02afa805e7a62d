import type { BoardChange, JobDetail, Problem } from "@pale-cap/contract";
import { useCallback } from "react";
import { newId } from "../api/newId";
import { asProblem } from "../ui/ProblemNote";
import { useEditBoardMutation } from "./jobApi";
import { useInTurn } from "./useInTurn";

/** Makes the changes from the board as it is stored when their turn comes; undefined: nothing to change any more. */
export type ChangesFrom = (detail: JobDetail) => readonly BoardChange[] | undefined;

/** Sends one all-or-nothing batch of edits to the board; resolves to the problem, or undefined when it was stored. */
export function useBoardEdit() {
  const inTurn = useInTurn();
  const [editBoard, { error, isLoading }] = useEditBoardMutation();
  const edit = useCallback(
    (changesFrom: ChangesFrom): Promise<Problem | undefined> =>
      inTurn(async (detail) => {
        const changes = changesFrom(detail);
        if (!changes) return undefined;
        const answer = await editBoard({ jobId: detail.job.id, body: { id: newId(), changes } });
        return asProblem(answer.error);
      }),
    [editBoard, inTurn],
  );
  return [edit, { problem: asProblem(error), isLoading }] as const;
}
