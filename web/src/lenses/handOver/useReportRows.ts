import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { type ReportRow, reportRows } from "./reportRows";

export function useReportRows(): readonly ReportRow[] {
  const { detail, facts, judgements } = useJob();
  return useMemo(() => reportRows(detail, facts, judgements), [detail, facts, judgements]);
}
