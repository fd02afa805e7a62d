import { judgeBoard, type VerdictWord } from "@pale-cap/core";
import { useCallback, useMemo } from "react";
import type { PartLook } from "../drawing/BoardDrawing";
import { useJob } from "./JobContext";

/** The board coloured by the verdict of the parts that sit there now: what is probed, not what once was found. */
export function useVerdictLook(): (positionId: string) => PartLook {
  const { facts, rules, judgements, devices } = useJob();
  const isAsFound = facts.fittedParts.every((part) => part.origin === "found" && part.removedAt === null);
  const shown = useMemo(
    () => (isAsFound ? judgements : judgeBoard(facts, rules.judgement, "current")),
    [isAsFound, facts, rules, judgements],
  );
  return useCallback(
    (positionId: string) => ({ verdict: shown.get(positionId)?.verdict ?? measured(devices.get(positionId)?.verdict) }),
    [shown, devices],
  );
}

/** Another part is marked once it was tested: most never are, and a ring on each would say nothing. */
const measured = (verdict: VerdictWord | undefined) => (verdict === "not_measured" ? undefined : verdict);
