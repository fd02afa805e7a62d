import type { JobDetail } from "@pale-cap/contract";
import { useCallback } from "react";
import { useStore } from "react-redux";
import { useJob } from "./JobContext";
import { jobApi } from "./jobApi";
import type { AppState } from "./store";

/** The last edit of each job that is on its way. */
const tails = new Map<string, Promise<unknown>>();

/**
 * Sends the edits of one job one after the other, each made from what is stored by then. Somebody who types faster than
 * the server answers must not be told that "somebody" changed the row in the meantime.
 */
export function useInTurn() {
  const jobId = useJob().detail.job.id;
  const store = useStore<AppState>();
  return useCallback(
    <T>(work: (detail: JobDetail) => Promise<T>): Promise<T> => {
      const before = tails.get(jobId) ?? Promise.resolve();
      const turn = before.then(async () => {
        const detail = jobApi.endpoints.job.select(jobId)(store.getState()).data;
        if (!detail) throw new Error("The job is not loaded any more.");
        const result = await work(detail);
        // The answer is laid into the cached job a moment after the request resolves.
        await new Promise((resolve) => setTimeout(resolve, 0));
        return result;
      });
      tails.set(
        jobId,
        turn.catch(() => undefined),
      );
      return turn;
    },
    [jobId, store],
  );
}
