import type { NewReading } from "@pale-cap/contract";
import type { OwnPartEntry, QuantityKind } from "@pale-cap/core";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { outbox } from "../../outbox/outbox";

/** Logs what was read of a part in the hand: out of circuit, at the tester's own frequencies. */
export function useReadInHand(positionId: string) {
  const { detail } = useJob();
  const settings = useAppSelector((state) => state.workplace.probe);
  const personId = useAppSelector((state) => state.workplace.personId);
  return (fittedPartId: string, { esrOhms, readFarads }: OwnPartEntry): void => {
    const log = (quantity: QuantityKind, value: number | null, frequencyHertz: number) => {
      if (value === null) return;
      const body: Omit<NewReading, "clockId"> = {
        ...{ id: newId(), targetKind: "part", targetId: positionId, fittedPartId, quantity, value, frequencyHertz },
        ...{ coarseCode: null, terminals: null, uncertainty: null, circuitState: "out", isPowered: false },
        ...{ loadAmps: null, rawText: null, instrument: null, isWithdrawn: false, supersedesId: null },
        temperatureCelsius: settings.temperatureCelsius,
        rig: {
          ...{ isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false, measuredAt: null },
          areLeadsZeroed: settings.leadOhms === 0,
        },
        measuredAt: pageClock.moment(),
        personId,
      };
      void outbox.submit({ kind: "reading", jobId: detail.job.id, body });
    };
    log("esr", esrOhms, settings.esrFrequencyHertz);
    log("capacitance", readFarads, settings.capacitanceFrequencyHertz);
  };
}
