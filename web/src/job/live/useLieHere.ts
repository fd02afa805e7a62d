import { useEffect, useRef } from "react";
import { newId } from "../../api/newId";
import { useBenchPlacesQuery, useLayOnBenchMutation } from "../sessionApi";
import { useWho } from "../useMay";

/** In a shop a job that lies on no bench yet lies on the one where it is opened; from another one it is taken under People. */
export function useLieHere(jobId: string, isOpen: boolean): void {
  const who = useWho();
  const benchId = who?.benchId ?? null;
  const mayLay = isOpen && benchId !== null && (who?.rights.includes("measure") ?? false);
  const { data: places } = useBenchPlacesQuery(undefined, { skip: !mayLay });
  const [lay] = useLayOnBenchMutation();
  const laid = useRef<string | null>(null);
  const liesNowhere = places?.every((place) => place.jobs.every((job) => job.id !== jobId)) ?? false;
  useEffect(() => {
    if (!mayLay || benchId === null || !liesNowhere || laid.current === jobId) return;
    laid.current = jobId;
    void lay({ jobId, benchId, writeId: newId() });
  }, [mayLay, benchId, liesNowhere, jobId, lay]);
}
