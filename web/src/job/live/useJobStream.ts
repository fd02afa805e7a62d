import { type JobStreamEvent, type Presence, routes } from "@pale-cap/contract";
import { useEffect, useState } from "react";
import { api } from "../../api/api";
import { useAppDispatch } from "../../app/store/hooks";
import { store } from "../../app/store/store";
import { inJobTurn } from "../../outbox/jobTurns";
import { jobApi } from "../jobApi";
import { url } from "../onJob";
import { useWho } from "../useMay";
import { laidChanges, sequenceOf } from "./laidChanges";
import { liveApi } from "./liveApi";

/** What comes in a burst is fetched once. */
const restMilliseconds = 60;
const retryMilliseconds = [500, 1000, 2000, 5000] as const;

/**
 * Hears what others do on a job while its page is the visible one: what came after what is known is fetched and laid into the job.
 *
 * @returns who else looks at it
 */
export function useJobStream(jobId: string): readonly Presence[] {
  const dispatch = useAppDispatch();
  const who = useWho();
  const [personId, benchId] = [who?.personId ?? null, who?.benchId ?? null];
  const [people, setPeople] = useState<readonly Presence[]>([]);
  useEffect(() => {
    if (jobId === "") return;
    void [personId, benchId];
    let source: EventSource | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let retry: ReturnType<typeof setTimeout> | undefined;
    let tries = 0;
    /** Up to here everything is known; what the page stored itself counts by its own rows. */
    let known = 0;
    const detailOf = () => jobApi.endpoints.job.select(jobId)(store.getState()).data;

    // In turn with this page's own edits: what was read before one of them must not be laid over its answer.
    const fetchChanges = () =>
      void inJobTurn(jobId, async () => {
        const detail = detailOf();
        if (!detail) return;
        const after = Math.max(known, sequenceOf(detail));
        const { data } = await dispatch(
          liveApi.endpoints.jobChanges.initiate({ jobId, after }, { forceRefetch: true, subscribe: false }),
        );
        if (!data) return;
        known = Math.max(known, data.sequence);
        dispatch(jobApi.util.updateQueryData("job", jobId, (now) => laidChanges(now, data)));
      });
    const later = () => {
      clearTimeout(timer);
      timer = setTimeout(fetchChanges, restMilliseconds);
    };
    function hear(event: JobStreamEvent): void {
      if (event.kind === "present") setPeople(event.people);
      else if (event.kind === "missed") later();
      else if (event.kind === "rules") dispatch(api.util.invalidateTags(["HouseRules"]));
      else {
        const detail = detailOf();
        // The place told is the one right behind the last fact: where that is known nothing else came.
        if (!detail || event.sequence > Math.max(known, sequenceOf(detail)) + 1) later();
      }
    }
    const open = () => {
      const opened = new EventSource(`/${url(routes.jobStream, jobId)}`);
      source = opened;
      opened.onopen = () => {
        tries = 0;
      };
      opened.onmessage = ({ data }) => hear(JSON.parse(data as string) as JobStreamEvent);
      opened.onerror = () => {
        // A refusal ends it for good: it is opened anew, here as after a silence.
        opened.close();
        if (source !== opened) return;
        source = null;
        setPeople([]);
        retry = setTimeout(open, retryMilliseconds[Math.min(tries++, retryMilliseconds.length - 1)]);
      };
    };
    const close = () => {
      clearTimeout(retry);
      clearTimeout(timer);
      source?.close();
      source = null;
      setPeople([]);
    };
    const turn = () => {
      if (document.hidden) close();
      else if (!source) open();
    };
    turn();
    document.addEventListener("visibilitychange", turn);
    return () => {
      document.removeEventListener("visibilitychange", turn);
      close();
    };
    // Whoever takes over the bench is who is seen from then on.
  }, [dispatch, jobId, personId, benchId]);
  return people;
}
