import { Button, SegmentedControl } from "@mantine/core";
import { boardName, capacitorsInOrder } from "@pale-cap/contract";
import { verdictWords } from "@pale-cap/core";
import { verdictLabels } from "@pale-cap/wording";
import { type ReactNode, useMemo, useState } from "react";
import { useAppDispatch } from "../../app/store/hooks";
import { type BoardArranging, BoardDrawing, type PartLook } from "../../drawing/BoardDrawing";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { useIsEntryClosed } from "../../ui/closedEntry";
import { ProblemNote } from "../../ui/ProblemNote";
import { useKeys } from "../../ui/useKeys";
import { useJob } from "../JobContext";
import { photoImage } from "../photoApi";
import { useBoardHistory } from "../useBoardEdit";
import { useTarget } from "../useTarget";
import { boardShown } from "../workplaceSlice";
import classes from "./layout.module.css";
import { PartList } from "./PartList";

interface BoardPanelProps {
  readonly look: (positionId: string) => PartLook;
  /** What the empty board should teach. */
  readonly emptyHint?: ReactNode;
  /** Inspect arranges the parts; every other lens only looks at them. */
  readonly arranging?: BoardArranging & { readonly moved: ReadonlyMap<string, readonly [number, number]> };
}

/** The job's board under its name, as drawing or as list: same parts, same selection. */
export function BoardPanel({ look, emptyHint, arranging: offered }: BoardPanelProps) {
  const arranging = useIsEntryClosed() ? undefined : offered;
  const { detail: unit, shown: detail, judgements, round } = useJob();
  const [target, select] = useTarget();
  const dispatch = useAppDispatch();
  const [view, setView] = useState<"board" | "list">("board");
  const [hasPhoto, setPhoto] = useState(true);
  const beneath = detail.photos.find((one) => one.id === detail.board.underlay?.photoId && !one.isRemoved);
  useKeys("Board", [
    { key: "l", label: "board or list", action: () => setView((now) => (now === "board" ? "list" : "board")) },
  ]);
  const capacitors = useMemo(() => capacitorsInOrder(detail), [detail]);
  // What was just moved stands where it was put until the server has stored it.
  const positions = useMemo(
    () =>
      detail.positions.map((one) => {
        const place = arranging?.moved.get(one.id);
        return place ? { ...one, xMetres: place[0], yMetres: place[1] } : one;
      }),
    [detail.positions, arranging?.moved],
  );
  const rails = detail.nets.filter((net) => net.fullLoadAmps !== null).length;
  const selectedId = target?.kind === "part" ? target.id : undefined;
  const bankIds = useMemo(() => {
    if (target?.kind === "rail") {
      return detail.positions.filter((position) => position.netId === target.id).map((position) => position.id);
    }
    return selectedId ? (judgements.get(selectedId)?.bankPositionIds ?? []) : [];
  }, [target, selectedId, detail.positions, judgements]);
  return (
    <>
      <div className={classes.boardHead}>
        {unit.boards.length < 2 ? (
          <h1 className={classes.boardTitle}>{detail.board.name ?? "Board"}</h1>
        ) : (
          <SegmentedControl
            aria-label="Board of the unit"
            data={unit.boards.map((board) => ({ value: board.id, label: boardName(board) }))}
            value={detail.board.id}
            onChange={(boardId) => dispatch(boardShown({ jobId: detail.job.id, boardId }))}
          />
        )}
        <span className={classes.boardNote}>
          {capacitors.length} electrolytic{capacitors.length === 1 ? "" : "s"}, {rails} rail{rails === 1 ? "" : "s"}{" "}
          promised{round > 1 && `, round ${round}`}
        </span>
        {arranging && <HistoryButtons />}
        {beneath && (
          <Button size="compact-sm" aria-pressed={hasPhoto} onClick={() => setPhoto((now) => !now)}>
            {hasPhoto ? "Hide photo" : "Show photo"}
          </Button>
        )}
        <SegmentedControl
          aria-label="View of the parts"
          data={[
            { value: "board", label: "Board" },
            { value: "list", label: "List" },
          ]}
          value={view}
          onChange={(next) => setView(next as "board" | "list")}
        />
      </div>
      <div className={classes.stage}>
        {capacitors.length === 0 && emptyHint && view === "list" ? (
          <div className={classes.empty}>{emptyHint}</div>
        ) : view === "board" ? (
          <BoardDrawing
            {...detail}
            positions={positions}
            arranging={arranging}
            photo={beneath && hasPhoto ? { ...beneath, address: photoImage(beneath.id) } : undefined}
            look={look}
            selectedId={selectedId}
            bankIds={bankIds}
            onSelect={(id) => select({ kind: "part", id })}
          />
        ) : (
          <PartList
            look={look}
            selectedId={selectedId}
            onSelect={(id) => select({ kind: "part", id })}
            onMark={arranging?.onMark}
            markedIds={arranging?.markedIds}
          />
        )}
      </div>
      <div className={classes.legend}>
        {verdictWords.map((word) => (
          <span key={word}>
            <VerdictGlyph verdict={word} size={13} />
            {verdictLabels[word]}
          </span>
        ))}
        <span className={classes.legendEnd}>dark stripe = negative</span>
      </div>
    </>
  );
}

/** Undo and redo of the board, by button and by key. */
function HistoryButtons() {
  const { canUndo, canRedo, undo, redo, problem } = useBoardHistory();
  useKeys("Board history", [
    { key: "u", label: "undo", action: undo },
    { key: "U", label: "redo", action: redo },
  ]);
  return (
    <div className={classes.history}>
      <Button size="compact-sm" disabled={!canUndo} onClick={undo}>
        Undo
      </Button>
      <Button size="compact-sm" disabled={!canRedo} onClick={redo}>
        Redo
      </Button>
      <ProblemNote problem={problem} />
    </div>
  );
}
