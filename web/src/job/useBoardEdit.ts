import type { BoardChange, Problem } from "@pale-cap/contract";
import { type BoardDetail, onBoard, shownBoard } from "@pale-cap/contract";
import { useCallback, useState, useSyncExternalStore } from "react";
import { newId } from "../api/newId";
import { asProblem } from "../ui/ProblemNote";
import { useEditBoardMutation } from "./boardApi";
import { atLatest, boardHistory, type InverseEdit, inverseOf } from "./boardHistory";
import { useJob } from "./JobContext";
import { useInTurn } from "./useInTurn";

/** Makes the changes from the rows as they are stored when their turn comes; undefined: nothing to change any more. */
export type ChangesFrom = (detail: BoardDetail) => readonly BoardChange[] | undefined;

type Remember = (jobId: string, inverse: InverseEdit | null) => void;

/** Sends a batch and remembers its way back. */
function useSendBoard() {
  const inTurn = useInTurn();
  const boardId = useJob().shown.board.id;
  const [editBoard, { isLoading }] = useEditBoardMutation();
  const [problem, setProblem] = useState<Problem>();
  const noted = useCallback((refusal: Problem | undefined) => {
    setProblem(refusal);
    return refusal;
  }, []);
  const send = useCallback(
    (changesFrom: ChangesFrom, remember: Remember): Promise<Problem | undefined> =>
      inTurn(async (detail) => {
        const changes = changesFrom({ ...detail, board: shownBoard(detail, boardId) });
        if (!changes) return undefined;
        const answer = await editBoard({ jobId: detail.job.id, body: { id: newId(), boardId, changes } });
        if (answer.data) remember(detail.job.id, inverseOf(changes, detail, answer.data));
        return noted(asProblem(answer.error));
      }, noted),
    [editBoard, inTurn, noted, boardId],
  );
  return [send, { problem, isLoading }] as const;
}

/** Sends one all-or-nothing batch of edits to the unit's boards; resolves to the problem, or undefined when it was stored. */
export function useBoardEdit() {
  const [send, state] = useSendBoard();
  const edit = useCallback((changesFrom: ChangesFrom) => send(changesFrom, boardHistory.made), [send]);
  return [edit, state] as const;
}

/** The same for the board that is shown: nothing of another board is seen by what makes the changes. */
export function useShownBoardEdit() {
  const [edit, state] = useBoardEdit();
  const editShown = useCallback(
    (changesFrom: ChangesFrom) => edit((detail) => changesFrom(onBoard(detail, detail.board))),
    [edit],
  );
  return [editShown, state] as const;
}

/** Takes edits of this job's board back, and back again, as inverse batches. */
export function useBoardHistory() {
  const jobId = useJob().detail.job.id;
  const [send, { problem }] = useSendBoard();
  const history = useSyncExternalStore(boardHistory.subscribe, () => boardHistory.of(jobId));
  // What is taken back is looked up when its turn comes: two quick presses take back two edits, not one twice.
  const step = (kind: "undo" | "redo", remember: Remember) =>
    void send((detail) => {
      const inverse = boardHistory.of(jobId)[kind].at(-1);
      return inverse && atLatest(inverse, detail);
    }, remember);
  return {
    canUndo: history.undo.length > 0,
    canRedo: history.redo.length > 0,
    undo: () => step("undo", boardHistory.undone),
    redo: () => step("redo", boardHistory.redone),
    problem,
  };
}
