import type { NewPowerEvent } from "@pale-cap/contract";
import { pageClock } from "../../../api/clock";
import { newId } from "../../../api/newId";
import { useAppSelector } from "../../../app/store/hooks";
import { useSubmit } from "../../../outbox/useSubmit";
import { useJob } from "../../JobContext";

type PowerFact = Pick<NewPowerEvent, "kind"> & Partial<Omit<NewPowerEvent, "id" | "at" | "clockId" | "personId">>;

/** Logs what tripped, a test, an overrule or a first power-up; resolves to whether it is stored or safe. */
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
