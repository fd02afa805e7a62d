import type { RunPlan, RunStop } from "@pale-cap/core";
import { useCallback } from "react";
import { useJob } from "../../../job/JobContext";
import { useInstrumentsQuery } from "../../../probe/instruments/instrumentApi";

/** What a rail, a place or an instrument of a run is called. */
export function useRunNames() {
  const { detail } = useJob();
  const instruments = useInstrumentsQuery().data?.instruments;
  const nameOf = useCallback(
    (id: string | null): string | null =>
      detail.nets.find((one) => one.id === id)?.name ??
      detail.positions.find((one) => one.id === id)?.designator ??
      instruments?.find((one) => one.id === id)?.name ??
      null,
    [detail.nets, detail.positions, instruments],
  );
  return { nameOf, subjectOf: (stop: RunStop) => nameOf(stop.subjectId) };
}

export const spotName = (spot: RunPlan["spots"][number], nameOf: (id: string | null) => string | null) =>
  nameOf(spot.targetId) ?? "the unit";
