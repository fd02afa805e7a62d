import type { PowerEventRow } from "@pale-cap/contract";
import { useRef } from "react";
import { newId } from "../api/newId";
import { useAppSelector } from "../job/hooks";
import { useJob } from "../job/JobContext";
import { useLogPowerMutation } from "../job/jobApi";

type PowerFact = Pick<PowerEventRow, "kind"> & Partial<Pick<PowerEventRow, "resistanceOhms" | "hasShort" | "note">>;

/** Logs a fuse, a breaker, a short test or an overrule; resolves to whether it was stored. */
export function useLogPower() {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.bench.personId);
  const [logPower, result] = useLogPowerMutation();
  // Kept until it was stored: a press that nobody answered and is pressed again must not double it.
  const pendingId = useRef(newId());
  const log = async (fact: PowerFact): Promise<boolean> => {
    const nothing = { resistanceOhms: null, hasShort: null, note: null };
    const body = { ...nothing, ...fact, id: pendingId.current, at: new Date().toISOString(), personId };
    const answer = await logPower({ jobId: detail.job.id, body });
    if (answer.error) return false;
    pendingId.current = newId();
    return true;
  };
  return [log, result] as const;
}
