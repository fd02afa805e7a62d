import type { ChargeEventRow } from "@pale-cap/contract";
import { useRef } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../job/hooks";
import { useJob } from "../../job/JobContext";
import { useLogChargeMutation } from "../../job/jobApi";

type ChargeFact = Pick<ChargeEventRow, "kind"> & Partial<ChargeEventRow>;

/** Logs what happened to stored charge. A failed attempt keeps its id: trying again cannot double it. */
export function useLogChargeEvent() {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.bench.personId);
  const [logCharge, result] = useLogChargeMutation();
  const pendingId = useRef(newId());
  const log = async (fact: ChargeFact): Promise<boolean> => {
    const answer = await logCharge({
      jobId: detail.job.id,
      body: {
        id: pendingId.current,
        storeId: null,
        volts: null,
        resistanceOhms: null,
        drainItem: null,
        isMeterProved: false,
        at: new Date().toISOString(),
        personId,
        ...fact,
      },
    });
    if (answer.error) return false;
    pendingId.current = newId();
    return true;
  };
  return [log, result] as const;
}
