import type { FaultEvidence, Topology } from "@pale-cap/core";
import { type Remote, wrap } from "comlink";
import { useEffect, useState } from "react";
import type { FaultAnswer, FaultWorker } from "./faultWorker";

let remote: Remote<FaultWorker> | undefined;

/** Explains the evidence off the main thread; the last answer stays until the next one is there. */
export function useFaultRanking(topology: Topology | null, evidence: FaultEvidence): FaultAnswer | undefined {
  const [answer, setAnswer] = useState<FaultAnswer>();
  // Compared by value: evidence is drawn anew from every reading, and mostly says the same.
  const question = JSON.stringify([topology, [...evidence]]);
  useEffect(() => {
    const [asked, seen] = JSON.parse(question) as [Topology | null, [string, boolean][]];
    if (seen.length === 0) {
      setAnswer(undefined);
      return;
    }
    remote ??= wrap<FaultWorker>(new Worker(new URL("./faultWorker.ts", import.meta.url), { type: "module" }));
    let isCurrent = true;
    void remote.explain(asked, seen).then((found) => {
      if (isCurrent) setAnswer(found);
    });
    return () => {
      isCurrent = false;
    };
  }, [question]);
  return answer;
}
