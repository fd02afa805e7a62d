import type { NewReading } from "@pale-cap/contract";
import { useCallback } from "react";
import { outbox } from "../outbox/outbox";

/** Hands a confirmed reading to the outbox; it counts at once and is shown until it is stored. */
export function useSendReading(jobId: string) {
  return useCallback(
    (body: NewReading): void => {
      void outbox.submit({ kind: "reading", jobId, body });
    },
    [jobId],
  );
}
