import { useEffect, useState } from "react";
import { fetchSamples } from "../../job/fetchSamples";

/** The samples of a stored capture, fetched once it is shown. */
export function useSamples(captureId: string | undefined): Float32Array | undefined {
  const [held, setHeld] = useState<{ readonly id: string; readonly samples: Float32Array }>();
  useEffect(() => {
    if (!captureId) return;
    let isCurrent = true;
    void fetchSamples(captureId)
      .then((samples) => {
        if (isCurrent) setHeld({ id: captureId, samples });
      })
      .catch(() => undefined);
    return () => {
      isCurrent = false;
    };
  }, [captureId]);
  return held?.id === captureId ? held?.samples : undefined;
}
