import type { OpenPoint } from "@pale-cap/core";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { useSubmit } from "../../outbox/useSubmit";

/** Accepts points with one reason, each by itself; resolves to whether all are stored or safe. */
export function useAccept() {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, result] = useSubmit();
  const accept = async (points: readonly OpenPoint[], reason: string): Promise<boolean> => {
    const kept: boolean[] = [];
    for (const { key } of points) {
      const body = { id: newId(), key, reason, acceptedAt: pageClock.moment(), personId };
      kept.push(await submit({ kind: "acceptance", jobId: detail.job.id, body }));
    }
    return kept.every(Boolean);
  };
  return [accept, result] as const;
}
