import type { ImpossibleConverterError, PredictionQuestion, RipplePrediction } from "@pale-cap/core";
import { type Remote, wrap } from "comlink";
import { useEffect, useState } from "react";
import type { RippleWorker } from "./rippleWorker";

let remote: Remote<RippleWorker> | undefined;

export function rippleWorker(): Remote<RippleWorker> {
  remote ??= wrap<RippleWorker>(new Worker(new URL("./rippleWorker.ts", import.meta.url), { type: "module" }));
  return remote;
}

export interface PredictedRipple {
  readonly prediction: RipplePrediction | null;
  readonly impossible: Pick<ImpossibleConverterError, "impossible" | "numbers"> | null;
  /** Ripple over loads for the three states; empty while it is worked out. */
  readonly sweep: readonly {
    readonly loadAmps: number;
    readonly healthy: number;
    readonly measured: number;
    readonly replaced: number;
  }[];
}

const sweepSteps = 40;

/** Ripple of a rail, worked out off the main thread; the last answer stays until the next is there. */
export function useRipplePrediction(
  question: PredictionQuestion | null,
  mostAmps: number,
): PredictedRipple | undefined {
  const [answer, setAnswer] = useState<PredictedRipple>();
  useEffect(() => {
    if (!question) return;
    let isCurrent = true;
    const loads = Array.from({ length: sweepSteps }, (_, n) => ((n + 1) / sweepSteps) * mostAmps);
    void (async () => {
      const found = await rippleWorker().predict(question);
      const sweep = "found" in found ? await rippleWorker().sweep(question, loads) : null;
      if (!isCurrent) return;
      setAnswer({
        prediction: "found" in found ? found.found : null,
        impossible: "found" in found ? null : found,
        sweep: sweep && "found" in sweep ? sweep.found : [],
      });
    })();
    return () => {
      isCurrent = false;
    };
  }, [question, mostAmps]);
  return question ? answer : undefined;
}
