import { useCallback } from "react";
import { BoardPanel } from "../../job/BoardPanel";
import { useJob } from "../../job/JobContext";
import { LensLayout } from "../../job/LensLayout";
import { JudgePane } from "./JudgePane";

/** Which parts are bad, how sure that is, and why. */
export function JudgeLens() {
  const { judgements } = useJob();
  const look = useCallback(
    (id: string) => {
      const judgement = judgements.get(id);
      return { verdict: judgement?.verdict, note: judgement?.mustReplace ? "goes out" : undefined };
    },
    [judgements],
  );
  return <LensLayout paneWidth="medium" board={<BoardPanel look={look} />} pane={<JudgePane />} />;
}
