import type { PowerEventRow } from "@pale-cap/contract";
import { pageClock } from "../../../api/clock";
import { newId } from "../../../api/newId";
import { useAppSelector } from "../../../app/store/hooks";
import { useSubmit } from "../../../outbox/useSubmit";
import { useJob } from "../../JobContext";

type PowerFact = Pick<PowerEventRow, "kind"> & Partial<Pick<PowerEventRow, "resistanceOhms" | "hasShort" | "note">>;

/** Logs a fuse, a breaker, a short test or an overrule; resolves to whether it is stored or safe. */
export function useLogPower() {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, result] = useSubmit();
  const log = (fact: PowerFact): Promise<boolean> => {
    const nothing = { resistanceOhms: null, hasShort: null, note: null };
    const body = { ...nothing, ...fact, id: newId(), at: pageClock.moment(), personId };
    return submit({ kind: "power", jobId: detail.job.id, body });
  };
  return [log, result] as const;
}
