import { type KindPage, onBoard, shownBoard } from "@pale-cap/contract";
import { useCallback, useMemo } from "react";
import type { PartLook } from "../../drawing/BoardDrawing";
import { StillBoard } from "../../drawing/StillBoard";
import { useJobQuery } from "../../job/jobApi";

const loudFrom = 0.25;

/** The board as the job that was closed last had it, with how often each place had failed. */
export function KindBoard({ kind }: { readonly kind: KindPage }) {
  const { data: detail } = useJobQuery(kind.latestJobId ?? "", { skip: kind.latestJobId === null });
  const byName = useMemo(() => new Map(kind.places.map((one) => [one.place, one])), [kind.places]);
  const shown = useMemo(() => detail && onBoard(detail, shownBoard(detail, undefined)), [detail]);
  const look = useCallback(
    (id: string): PartLook => {
      const at = detail?.positions.find((one) => one.id === id);
      const place = at && byName.get(at.designator);
      if (!place || place.seenCount === 0) return { isFaded: true };
      const note = `${place.failedCount}/${place.seenCount}`;
      if (!place.share) return { note, verdict: "not_measured" };
      const ratio = place.share.meanRatio;
      return {
        note,
        verdict: ratio >= loudFrom ? "failed" : place.share.highRatio < loudFrom ? "sound" : "cannot_tell",
      };
    },
    [detail, byName],
  );
  if (!shown) return null;
  return (
    <StillBoard shown={shown} look={look}>
      Crossed: had failed in a quarter of those seen, or more. Full: in fewer. Dotted: it may be either. Ring: too few
      to count on. Faded: never shown. The board is that of the job that was closed last.
    </StillBoard>
  );
}
