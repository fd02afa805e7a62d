import { Button, Checkbox, FileButton } from "@mantine/core";
import type { BoardChange, JobDetail } from "@pale-cap/contract";
import { fitPlacements, parsePartEntry } from "@pale-cap/core";
import { useMemo, useRef, useState } from "react";
import { useJob } from "../../job/JobContext";
import { positionUpdate } from "../../job/positionUpdate";
import { useShownBoardEdit } from "../../job/useBoardEdit";
import { useTellExport } from "../../job/useTellExport";
import { download } from "../../ui/download";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { isTaken } from "./designators";
import { entryChanges } from "./entryChanges";
import classes from "./inspect.module.css";
import { PlacementPreview } from "./PlacementPreview";
import { type PlacedDesignator, printPositionsCsv, type ReadPositions, readPositionsCsv } from "./positionsCsv";

const mostBytes = 2 * 1024 * 1024;

/** Places of parts from a file, shown before anything changes; and the places of this board as a file. */
export function PositionsFile() {
  const { shown: detail } = useJob();
  const [edit, { problem, isLoading }] = useShownBoardEdit();
  const tellExport = useTellExport();
  const [read, setRead] = useState<ReadPositions | null>(null);
  const [isAdding, setAdding] = useState(true);
  const reset = useRef<() => void>(null);
  const [isYUp, setYUp] = useState(true);
  const [isBottomMirrored, setBottomMirrored] = useState(false);
  // This product's own lists count as the board does.
  const fitted = useMemo(
    () =>
      read && read.rows.length > 0 && read.isEditorList
        ? fitPlacements(read.rows, detail.board, { isYUp, isBottomMirrored })
        : null,
    [read, detail.board, isYUp, isBottomMirrored],
  );
  const placed: readonly PlacedDesignator[] = fitted?.rows ?? read?.rows ?? [];
  const isKnown = (row: PlacedDesignator) => isTaken(detail.positions, row.designator);
  const known = placed.filter(isKnown);
  const unknown = placed.filter((row) => !isKnown(row));
  const count = known.length + (isAdding ? unknown.length : 0);

  async function open(file: File | null) {
    reset.current?.();
    if (!file) return;
    const text = file.size > mostBytes ? null : await file.text();
    setRead(
      text === null
        ? {
            rows: [],
            problems: [{ line: 1, text: "the file is larger than 2 MB and no list of positions" }],
            isEditorList: false,
          }
        : readPositionsCsv(text),
    );
  }

  async function place() {
    const rows = [...known, ...(isAdding ? unknown : [])];
    if (!(await edit((latest) => rows.flatMap((row) => placement(latest, row))))) setRead(null);
  }

  function save() {
    const name = `${(detail.board.name ?? "board").replace(/[^\w-]+/g, "-")}-positions.csv`;
    download(name, printPositionsCsv(detail.positions), "text/csv");
    tellExport("positions_csv");
  }

  return (
    <Part title="Positions as a file">
      <div className={classes.file}>
        <FileButton
          accept=".csv,.txt,text/csv,text/plain"
          resetRef={reset}
          onChange={(file) => void open(file)}
          inputProps={{ "aria-label": "Positions file" }}
        >
          {(props) => (
            <Button size="xs" {...props}>
              Read a CSV
            </Button>
          )}
        </FileButton>
        <Button size="xs" disabled={detail.positions.every((one) => one.xMetres === null)} onClick={save}>
          Save as CSV
        </Button>
      </div>
      {read && (
        <div role="status">
          <p>
            {known.length} part{known.length === 1 ? "" : "s"} of this board found
            {unknown.length > 0 && `, ${unknown.length} not on it yet`}.
          </p>
          {fitted && (
            <>
              <PlacementPreview board={detail.board} rows={placed} isKnown={isKnown} />
              <p>
                {fitted.origin === "corner"
                  ? "It counts from a corner of the board."
                  : "It counts from somewhere else: its middle lies on the board's middle. Look whether it fits."}
                {fitted.outsideCount > 0 && (
                  <b>
                    {" "}
                    {fitted.outsideCount} {fitted.outsideCount === 1 ? "part lies" : "parts lie"} beside the board: its
                    size, or the list, is of another one.
                  </b>
                )}
              </p>
              <Checkbox
                label="y counts upward in it"
                checked={isYUp}
                onChange={(event) => setYUp(event.currentTarget.checked)}
              />
              {placed.some((one) => one.side === "bottom") && (
                <Checkbox
                  label="the lower side stands as seen from below"
                  checked={isBottomMirrored}
                  onChange={(event) => setBottomMirrored(event.currentTarget.checked)}
                />
              )}
            </>
          )}
          {unknown.length > 0 && (
            <Checkbox
              label={`add ${unknown.map((row) => row.designator).join(", ")}`}
              checked={isAdding}
              onChange={(event) => setAdding(event.currentTarget.checked)}
            />
          )}
          {read.problems.length > 0 && (
            <ul className={classes.fileProblems}>
              {read.problems.slice(0, 8).map((one) => (
                <li key={one.line}>
                  Line {one.line}: {one.text}
                </li>
              ))}
              {read.problems.length > 8 && <li>and {read.problems.length - 8} lines more</li>}
            </ul>
          )}
          <div className={classes.file}>
            <Button
              size="xs"
              variant="filled"
              loading={isLoading}
              disabled={count === 0 || (fitted?.outsideCount ?? 0) > 0}
              onClick={() => void place()}
            >
              Place {count} part{count === 1 ? "" : "s"}
            </Button>
            <Button size="xs" onClick={() => setRead(null)}>
              Leave it
            </Button>
          </div>
        </div>
      )}
      <ProblemNote problem={problem} />
    </Part>
  );
}

function placement(latest: JobDetail, row: PlacedDesignator): readonly BoardChange[] {
  const { designator, xMetres, yMetres } = row;
  const position = latest.positions.find((one) => one.designator.toUpperCase() === designator);
  if (position) return positionUpdate(latest, position.id, { xMetres, yMetres }) ?? [];
  return entryChanges({ ...parsePartEntry(designator).entry, xMetres, yMetres }, null).changes;
}
