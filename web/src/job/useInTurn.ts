import type { JobDetail, Problem } from "@pale-cap/contract";
import { useCallback } from "react";
import { useStore } from "react-redux";
import { silence } from "../api/api";
import type { AppState } from "../app/store/store";
import { inJobTurn } from "../outbox/jobTurns";
import { outbox } from "../outbox/outbox";
import { useJob } from "./JobContext";
import { jobApi } from "./jobApi";

/**
 * Sends the edits of one job one after the other, each made from what is stored by then, and after the facts that were
 * confirmed before it. Somebody who types faster than the server answers must not be told that "somebody" changed the row
 * in the meantime. While the server is silent nothing is sent out of turn: the edit is refused with that.
 */
export function useInTurn() {
  const jobId = useJob().detail.job.id;
  const store = useStore<AppState>();
  return useCallback(
    <T>(work: (detail: JobDetail) => Promise<T>, unsent: (problem: Problem) => T): Promise<T> =>
      inJobTurn(jobId, async () => {
        if (!(await outbox.sendBefore(jobId))) return unsent(silence);
        const detail = jobApi.endpoints.job.select(jobId)(store.getState()).data;
        if (!detail) throw new Error("The job is not loaded any more.");
        return work(detail);
      }),
    [jobId, store],
  );
}
