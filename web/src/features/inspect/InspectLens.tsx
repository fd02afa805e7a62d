import { latestSigns, visualSigns } from "@pale-cap/core";
import { useCallback } from "react";
import { BoardPanel } from "../../job/BoardPanel";
import { useJob } from "../../job/JobContext";
import { LensLayout } from "../../job/LensLayout";
import { signLabels } from "../../wording/boardWords";
import { CapacitorTable } from "./CapacitorTable";
import { InspectPane } from "./InspectPane";
import { QuickEntry } from "./QuickEntry";

/** What is on the board and what can be seen. */
export function InspectLens() {
  const { detail } = useJob();
  const look = useCallback(
    (positionId: string) => {
      const part = detail.fittedParts.find((one) => one.positionId === positionId && one.origin === "found");
      const signs = part ? latestSigns(detail.signs, part.id) : {};
      const seen = visualSigns.filter((sign) => signs[sign] === "seen").map((sign) => signLabels[sign]);
      return seen.length > 0 ? { seen: seen.join(", ") } : {};
    },
    [detail.fittedParts, detail.signs],
  );
  return (
    <LensLayout
      board={<BoardPanel look={look} />}
      pane={<InspectPane />}
      dock={
        <>
          <QuickEntry />
          <CapacitorTable />
        </>
      }
    />
  );
}
