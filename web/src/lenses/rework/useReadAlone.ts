import { partBeside } from "@pale-cap/core";
import { useEffect } from "react";
import { useAppDispatch } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { probeSet } from "../../job/workplaceSlice";
import type { ReworkRow } from "./reworkRows";

/**
 * Whether the selected place's old part lies there with an open verdict: then the probe bar asks for its ESR, alone. What it reads
 * off the board is kept as what it is.
 */
export function useReadAlone(row: ReworkRow | undefined): boolean {
  const { facts, judgements } = useJob();
  const dispatch = useAppDispatch();
  const id = row?.position.id;
  const lies = row?.done.has("removed") && !row.done.has("fitted") && row.found;
  const verdict = id ? judgements.get(id)?.verdict : undefined;
  const beside = id ? partBeside(facts.fittedParts, facts.ticks, id) : undefined;
  const wasOpen = verdict === "not_measured" || verdict === "cannot_tell";
  const isAsked = Boolean(lies && wasOpen && beside);
  useEffect(() => {
    if (isAsked) dispatch(probeSet({ quantity: "esr", circuitState: "out" }));
  }, [dispatch, isAsked]);
  return isAsked;
}
