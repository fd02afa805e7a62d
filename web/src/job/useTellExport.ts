import type { ExportKind } from "@pale-cap/contract";
import { newId } from "../api/newId";
import { useAppSelector } from "../app/store/hooks";
import { useTellExportMutation } from "./exportApi";
import { useJob } from "./JobContext";

/** Writes down that something of the job left in a file; the file itself does not wait for it. */
export function useTellExport() {
  const jobId = useJob().detail.job.id;
  const personId = useAppSelector((state) => state.workplace.personId);
  const [tell] = useTellExportMutation();
  return (what: ExportKind): void => void tell({ jobId, body: { id: newId(), what, personId } });
}
