import { useCallback } from "react";
import { useAppDispatch, useAppSelector } from "../app/store/hooks";
import { useJob } from "./JobContext";
import { boardShown, type ProbeTarget, targetSelected } from "./workplaceSlice";

/** The part or rail that is selected on this job; shared by the board, the pane and the probe bar. */
export function useTarget(): readonly [ProbeTarget | undefined, (target: ProbeTarget | undefined) => void] {
  const { detail } = useJob();
  const jobId = detail.job.id;
  const target = useAppSelector((state) => state.workplace.targets[jobId]);
  const dispatch = useAppDispatch();
  const { positions, nets } = detail;
  const select = useCallback(
    (next: ProbeTarget | undefined) => {
      dispatch(targetSelected({ jobId, target: next }));
      // The board that it is on is the one to look at.
      const row = [...positions, ...nets].find((one) => one.id === next?.id);
      if (row) dispatch(boardShown({ jobId, boardId: row.boardId }));
    },
    [dispatch, jobId, positions, nets],
  );
  return [target, select];
}

/** The position of the selected part, if a part is selected. */
export function useSelectedPosition() {
  const { detail } = useJob();
  const [target] = useTarget();
  return target?.kind === "part" ? detail.positions.find((position) => position.id === target.id) : undefined;
}
