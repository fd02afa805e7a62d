import { capacitorsInOrder } from "@pale-cap/contract";
import { useEffect } from "react";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { useTarget } from "../../job/useTarget";
import { useVerdictLook } from "../../job/useVerdictLook";
import { useInstrumentStream } from "../../probe/instruments/useInstrumentStream";
import { ProbeBar } from "../../probe/ProbeBar";
import { MeasurePane } from "./MeasurePane";

/** What to probe, what it should read, and what it read. */
export function MeasureLens() {
  useInstrumentStream();
  const { detail } = useJob();
  const [target, select] = useTarget();
  // Coming in with nothing selected, the first part is ready to be probed.
  useEffect(() => {
    const first = capacitorsInOrder(detail).find((one) => one.current);
    if (!target && first) select({ kind: "part", id: first.position.id });
  }, [detail, target, select]);
  const look = useVerdictLook();
  return <LensLayout board={<BoardPanel look={look} />} pane={<MeasurePane />} foot={<ProbeBar />} />;
}
