import { needsReplacement } from "@pale-cap/core";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { useChosenCatalogue } from "../../job/useChosenCatalogue";
import { useChosenComponents } from "../../job/useChosenComponents";
import { useSelectedPosition } from "../../job/useTarget";
import { type ReworkRows, reworkRows } from "./reworkRows";

/** The chosen places, those judged bad, and the one that is selected: what is to come out needs no choice. */
export function useReworkRows(): readonly ReworkRows[] {
  const { detail, judgements, devices } = useJob();
  const catalogue = useChosenCatalogue();
  const components = useChosenComponents();
  const selected = useSelectedPosition()?.id;
  return useMemo(() => {
    const bad = [...judgements.values()].filter(needsReplacement).map((one) => one.positionId);
    const badDevices = [...devices.values()].filter((one) => one.verdict === "failed").map((one) => one.positionId);
    const wanted = new Set([...bad, ...badDevices, ...(selected ? [selected] : [])]);
    return reworkRows(detail, catalogue, wanted, components);
  }, [detail, catalogue, components, judgements, devices, selected]);
}
