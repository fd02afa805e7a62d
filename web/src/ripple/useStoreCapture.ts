import type { CaptureRig, Net } from "@pale-cap/contract";
import { newId } from "../api/newId";
import { useAppSelector } from "../job/hooks";
import { useJob } from "../job/JobContext";
import type { ReadChannel } from "../workers/captureWorker";
import { useAddCaptureMutation } from "./captureApi";

/** What is said of a capture beside its samples. */
interface Said {
  readonly name: string;
  readonly loadAmps: number | null;
  readonly rig: CaptureRig;
  /** null: from a file. */
  readonly instrument: string | null;
}

/** Stores what was read of a rail, from a file or from the scope. Resolves to its id; null where it was refused. */
export function useStoreCapture(net: Net) {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.bench.personId);
  const [add, { error, isLoading }] = useAddCaptureMutation();
  async function store({ analysis, packed }: ReadChannel, said: Said): Promise<string | null> {
    const id = newId();
    const measuredAt = new Date().toISOString();
    const answer = await add({
      jobId: detail.job.id,
      body: { ...said, id, netId: net.id, analysis, measuredAt, personId },
      packed: new Blob([packed as Uint8Array<ArrayBuffer>]),
    });
    return "error" in answer ? null : id;
  }
  return [store, { error, isLoading }] as const;
}
