import type { CaptureRow } from "@pale-cap/contract";
import { coreVersion } from "@pale-cap/core";
import { useEffect } from "react";
import { newId } from "../../api/newId";
import { useJob } from "../../job/JobContext";
import { captureWorker } from "../../workers/captures";
import { useRedoAnalysisMutation } from "./captureApi";

/**
 * What an older core analysed is analysed anew from its samples once it is opened, so that no two captures are judged by two
 * cores. On a closed job it stays as it was handed over.
 */
export function useNewestAnalysis(capture: CaptureRow | undefined, samples: Float32Array | undefined): void {
  const { detail, houseRules } = useJob();
  const [redo] = useRedoAnalysisMutation();
  const isOld = capture !== undefined && capture.coreVersion !== coreVersion && detail.job.handedOverAt === null;
  const jobId = detail.job.id;
  const mainsHertz = houseRules["mains.hertz"];
  useEffect(() => {
    if (!isOld || !capture || !samples) return;
    let isCurrent = true;
    void captureWorker()
      .analysisOf(samples, capture.analysis.intervalSeconds, mainsHertz)
      .then((analysis) => {
        const { id: captureId, version } = capture;
        if (isCurrent) void redo({ jobId, captureId, body: { writeId: newId(), version, coreVersion, analysis } });
      });
    return () => {
      isCurrent = false;
    };
  }, [isOld, capture, samples, jobId, mainsHertz, redo]);
}
