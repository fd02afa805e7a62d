import { netsInOrder } from "@pale-cap/contract";
import { useEffect, useRef } from "react";
import { useAppDispatch, useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { useTarget } from "../../job/useTarget";
import { useVerdictLook } from "../../job/useVerdictLook";
import { probeSet } from "../../job/workplaceSlice";
import { useInstrumentStream } from "../../probe/instruments/useInstrumentStream";
import { ProbeBar } from "../../probe/ProbeBar";
import { ProvePane } from "./ProvePane";

/** Whether the rails hold what was promised, unloaded and loaded. */
export function ProveLens() {
  const { detail } = useJob();
  useInstrumentStream();
  const [target, select] = useTarget();
  const hasArrived = useRef(false);
  useEffect(() => {
    const rails = netsInOrder(detail);
    const first = rails.find((net) => net.fullLoadAmps !== null) ?? rails[0];
    // Once, on arriving: afterwards the bar follows what is clicked.
    if (!hasArrived.current && target?.kind !== "rail" && first) select({ kind: "rail", id: first.id });
    hasArrived.current = true;
  }, [detail, target, select]);
  // Under power a part is felt, never put across a meter; elsewhere it is asked for its ESR again.
  const dispatch = useAppDispatch();
  const quantity = useRef("");
  quantity.current = useAppSelector((state) => state.workplace.probe.quantity);
  const partId = target?.kind === "part" ? target.id : null;
  useEffect(() => {
    if (partId === null) return;
    dispatch(probeSet({ quantity: "temperature" }));
    return () => {
      if (quantity.current === "temperature") dispatch(probeSet({ quantity: "esr" }));
    };
  }, [dispatch, partId]);
  const look = useVerdictLook();
  return <LensLayout paneWidth="medium" board={<BoardPanel look={look} />} pane={<ProvePane />} foot={<ProbeBar />} />;
}
