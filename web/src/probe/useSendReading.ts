import { useCallback } from "react";
import { outbox } from "../outbox/outbox";
import type { DraftReading } from "./draftReading";

/** Hands a confirmed reading to the outbox; it counts at once and is shown until it is stored. */
export function useSendReading(jobId: string) {
  return useCallback(
    (body: DraftReading): void => {
      void outbox.submit({ kind: "reading", jobId, body });
    },
    [jobId],
  );
}
