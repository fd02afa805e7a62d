import { type JudgedPart, judgeBoard } from "@pale-cap/core";
import { useCallback, useMemo } from "react";
import type { PartLook } from "../drawing/BoardDrawing";
import { useJob } from "./JobContext";

/** The board coloured by verdict: of the parts as they were found, or of those that are in now. */
export function useVerdictLook(which: JudgedPart): (positionId: string) => PartLook {
  const { facts, rules, judgements } = useJob();
  const shown = useMemo(
    () => (which === "found" ? judgements : judgeBoard(facts, rules.judgement, which)),
    [which, facts, rules, judgements],
  );
  return useCallback((positionId: string) => ({ verdict: shown.get(positionId)?.verdict }), [shown]);
}
