import { judgeBoard } from "@pale-cap/core";
import { useCallback, useEffect, useMemo } from "react";
import { BoardPanel } from "../../job/BoardPanel";
import { useJob } from "../../job/JobContext";
import { LensLayout } from "../../job/LensLayout";
import { netsInOrder } from "../../job/parts";
import { useTarget } from "../../job/useTarget";
import { ProbeBar } from "../../probe/ProbeBar";
import { ProvePane } from "./ProvePane";

/** Whether the rails hold what was promised, unloaded and loaded. */
export function ProveLens() {
  const { detail, facts, rules } = useJob();
  const [target, select] = useTarget();
  useEffect(() => {
    const rails = netsInOrder(detail);
    const first = rails.find((net) => net.fullLoadAmps !== null) ?? rails[0];
    if (target?.kind !== "rail" && first) select({ kind: "rail", id: first.id });
  }, [detail, target, select]);
  const now = useMemo(() => judgeBoard(facts, rules.judgement, "current"), [facts, rules]);
  const look = useCallback((id: string) => ({ verdict: now.get(id)?.verdict }), [now]);
  return <LensLayout paneWidth="medium" board={<BoardPanel look={look} />} pane={<ProvePane />} foot={<ProbeBar />} />;
}
