import type { RunRow } from "@pale-cap/contract";
import { isRunOver, type RunSample, runState } from "@pale-cap/core";
import { useEffect, useMemo, useRef, useState } from "react";
import { api } from "../../../api/api";
import { useAppDispatch } from "../../../app/store/hooks";
import { useLazyRunSamplesQuery, useRunsQuery } from "./runApi";

const liveMilliseconds = 1000;
const restMilliseconds = 8000;

/** The runs of a job, asked for each second while one goes on; what it leaves in the job is fetched as it comes. */
export function useRuns(jobId: string) {
  const [isLive, setLive] = useState(false);
  const { data, error } = useRunsQuery(jobId, {
    pollingInterval: isLive ? liveMilliseconds : restMilliseconds,
    skipPollingIfUnfocused: false,
  });
  const runs = useMemo(() => [...(data ?? [])].reverse(), [data]);
  const live = runs.find((one) => !isRunOver(runState(one.events).name)) ?? null;
  useEffect(() => setLive(live !== null), [live]);
  const dispatch = useAppDispatch();
  const told = runs.reduce((sum, one) => sum + one.events.filter(leavesSomething).length, 0);
  const before = useRef<number | null>(null);
  useEffect(() => {
    if (data === undefined) return;
    if (before.current !== null && told > before.current) {
      dispatch(api.util.invalidateTags([{ type: "Job", id: jobId }]));
    }
    before.current = told;
  }, [data, told, dispatch, jobId]);
  return { runs, live, error, isLoaded: data !== undefined };
}

const leaving = ["mains_on", "step_done", "mains_off", "ended"];
const leavesSomething = ({ kind }: { readonly kind: string }) => leaving.includes(kind);

/** The samples of a run, from the first on; while it goes on, more each second. */
export function useRunSamples(jobId: string, run: RunRow | null): readonly RunSample[] {
  const [fetchSamples] = useLazyRunSamplesQuery();
  const [kept, setKept] = useState<{ readonly runId: string | null; readonly samples: readonly RunSample[] }>({
    runId: null,
    samples: [],
  });
  const runId = run?.id ?? null;
  // Its end stops the asking; what was fetched stays.
  const isLive = useRef(false);
  isLive.current = run !== null && !isRunOver(runState(run.events).name);
  useEffect(() => {
    if (runId === null) return;
    let [next, isGone] = [-1, false];
    let timer: ReturnType<typeof setTimeout>;
    setKept({ runId, samples: [] });
    const ask = async () => {
      const wasLive = isLive.current;
      const { data } = await fetchSamples({ jobId, runId, after: next });
      if (isGone) return;
      if (data && data.samples.length > 0) {
        next = data.next;
        setKept((now) => ({ runId, samples: [...now.samples, ...data.samples] }));
      }
      const isMore = (data?.samples.length ?? 0) > 1000;
      if (wasLive || isMore) timer = setTimeout(() => void ask(), isMore ? 0 : liveMilliseconds);
    };
    void ask();
    return () => {
      isGone = true;
      clearTimeout(timer);
    };
  }, [fetchSamples, jobId, runId]);
  return kept.runId === runId ? kept.samples : [];
}
