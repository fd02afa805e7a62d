import { partBeside } from "@pale-cap/core";
import { useEffect, useRef } from "react";
import { useAppDispatch, useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { type ProbeSettings, probeSet } from "../../job/workplaceSlice";
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
  const before = useRef<ProbeSettings | null>(null);
  const probe = useRef<ProbeSettings | null>(null);
  probe.current = useAppSelector((state) => state.workplace.probe);
  useEffect(() => {
    if (!isAsked) return;
    before.current = probe.current;
    dispatch(probeSet({ quantity: "esr", circuitState: "out" }));
    // What is read next may be in its circuit again: the bar goes back to how it was.
    return () => {
      if (!before.current) return;
      const { quantity, circuitState } = before.current;
      dispatch(probeSet({ quantity, circuitState }));
    };
  }, [dispatch, isAsked]);
  return isAsked;
}
