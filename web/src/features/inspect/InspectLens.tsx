import { latestSigns } from "@pale-cap/core";
import { useCallback } from "react";
import { BoardPanel } from "../../job/BoardPanel";
import { useJob } from "../../job/JobContext";
import { LensLayout } from "../../job/LensLayout";
import { signLabels } from "../../wording/boardWords";
import { CapacitorTable } from "./CapacitorTable";
import { InspectPane } from "./InspectPane";

/** What is on the board and what can be seen. */
export function InspectLens() {
  const { detail } = useJob();
  const look = useCallback(
    (positionId: string) => {
      const part = detail.fittedParts.find((one) => one.positionId === positionId && one.origin === "found");
      const signs = part ? latestSigns(detail.signs, part.id) : {};
      const seen = Object.entries(signs).find(([, state]) => state === "seen")?.[0];
      return seen ? { note: signLabels[seen as keyof typeof signLabels] } : {};
    },
    [detail.fittedParts, detail.signs],
  );
  return <LensLayout board={<BoardPanel look={look} />} pane={<InspectPane />} dock={<CapacitorTable />} />;
}
