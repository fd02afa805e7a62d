import type { CaptureRig, Net, Problem } from "@pale-cap/contract";
import { coreVersion } from "@pale-cap/core";
import { useState } from "react";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { useInTurn } from "../../job/useInTurn";
import { asProblem } from "../../ui/ProblemNote";
import type { ReadChannel } from "../../workers/captureWorker";
import { useAddCaptureMutation } from "./captureApi";

/** What is said of a capture beside its samples. */
interface Said {
  readonly name: string;
  readonly loadAmps: number | null;
  readonly rig: CaptureRig;
  /** null: from a file. */
  readonly instrument: string | null;
  readonly isSimulated: boolean;
}

/** Stores what was read of a rail, from a file or from the scope. Resolves to its id; null where it was refused. */
export function useStoreCapture(net: Net) {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [add, { isLoading }] = useAddCaptureMutation();
  const [problem, setProblem] = useState<Problem>();
  const inTurn = useInTurn();
  /** In its turn: a capture does not overtake the readings that were confirmed before it. */
  async function store({ analysis, packed }: ReadChannel, said: Said): Promise<string | null> {
    const id = newId();
    const moment = { measuredAt: pageClock.moment(), clockId: pageClock.id };
    const refusal = await inTurn(
      async () => {
        const body = { ...said, ...moment, id, netId: net.id, analysis, coreVersion, personId };
        const answer = await add({
          jobId: detail.job.id,
          body,
          packed: new Blob([packed as Uint8Array<ArrayBuffer>]),
        });
        return asProblem(answer.error);
      },
      (unsent): Problem | undefined => unsent,
    );
    setProblem(refusal);
    return refusal ? null : id;
  }
  return [store, { error: problem, isLoading }] as const;
}
