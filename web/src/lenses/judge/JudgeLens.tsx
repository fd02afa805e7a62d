import { useCallback } from "react";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
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
