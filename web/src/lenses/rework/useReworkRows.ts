import { useMemo } from "react";
import { useCatalogueQuery } from "../../job/catalogueApi";
import { useJob } from "../../job/JobContext";
import { type ReworkRows, reworkRows } from "./reworkRows";

export function useReworkRows(): readonly ReworkRows[] {
  const { detail } = useJob();
  const { data: catalogue } = useCatalogueQuery();
  return useMemo(() => reworkRows(detail, catalogue), [detail, catalogue]);
}
