import type { NewChargeEvent } from "@pale-cap/contract";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { useSubmit } from "../../outbox/useSubmit";

type ChargeFact = Pick<NewChargeEvent, "kind"> & Partial<Omit<NewChargeEvent, "clockId">>;

/** Logs what happened to stored charge; resolves to whether it is stored or safe in the outbox. */
export function useLogChargeEvent() {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, result] = useSubmit();
  const log = async (fact: ChargeFact): Promise<boolean> => {
    const isSafe = await submit({
      kind: "charge",
      jobId: detail.job.id,
      body: {
        id: newId(),
        storeId: null,
        volts: null,
        resistanceOhms: null,
        drainItem: null,
        isMeterProved: false,
        isDrainOn: false,
        lineSide: null,
        isSimulated: false,
        at: pageClock.moment(),
        personId,
        ...fact,
      },
    });
    return isSafe;
  };
  return [log, result] as const;
}
