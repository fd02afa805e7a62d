import { latestSigns, visualSigns } from "@pale-cap/core";
import { signLabels } from "@pale-cap/wording";
import { useCallback } from "react";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { ProblemNote } from "../../ui/ProblemNote";
import { CapacitorTable } from "./CapacitorTable";
import { DeviceTable } from "./DeviceTable";
import { InspectPane } from "./InspectPane";
import { MarkedParts } from "./MarkedParts";
import { QuickEntry } from "./QuickEntry";
import { useArranging } from "./useArranging";

/** What is on the board and what can be seen. */
export function InspectLens() {
  const { shown: detail } = useJob();
  const look = useCallback(
    (positionId: string) => {
      const part = detail.fittedParts.find((one) => one.positionId === positionId && one.origin === "found");
      const signs = latestSigns(detail.signs, part?.id ?? positionId);
      const seen = visualSigns.filter((sign) => signs[sign] === "seen").map((sign) => signLabels[sign]);
      return seen.length > 0 ? { seen: seen.join(", ") } : {};
    },
    [detail.fittedParts, detail.signs],
  );
  const { arranging, acts, problem } = useArranging();
  return (
    <LensLayout
      board={<BoardPanel look={look} arranging={arranging} />}
      pane={
        <InspectPane
          tools={
            <>
              {arranging.markedIds.size > 0 && <MarkedParts count={arranging.markedIds.size} acts={acts} />}
              <ProblemNote problem={problem} />
            </>
          }
        />
      }
      dock={
        <>
          <QuickEntry />
          <CapacitorTable />
          <DeviceTable />
        </>
      }
    />
  );
}
