import { Button, SegmentedControl, TextInput } from "@mantine/core";
import type { PhotoMark, PhotoRow } from "@pale-cap/contract";
import { photoKindLabels } from "@pale-cap/wording";
import { type KeyboardEvent, type MouseEvent, useRef, useState } from "react";
import { TransformComponent, TransformWrapper } from "react-zoom-pan-pinch";
import { newId } from "../../api/newId";
import { photoImage } from "../../job/photoApi";
import { CommittedText } from "../../ui/CommittedText";
import { EntryFieldset } from "../../ui/closedEntry";
import { ProblemNote } from "../../ui/ProblemNote";
import { useDraft } from "../../ui/useDraft";
import { useKeys } from "../../ui/useKeys";
import { PhotoMarkDrawing } from "./PhotoMarkDrawing";
import classes from "./photos.module.css";
import { useEditPhoto } from "./useEditPhoto";

type Tool = "look" | PhotoMark["kind"];

const hints: Readonly<Record<Tool, string>> = {
  look: "Drag to move, wheel to zoom. A chosen mark moves by the arrow keys, an arrow's head with Shift; Delete takes it off.",
  dot: "Click where the dot goes.",
  arrow: "Click where the arrow starts, then what it points to.",
  text: "Write the text, then click where it goes.",
};

const nudges: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const nudgeShare = 0.005;

/** A photo in place of the board, with pen marks over it that stay what they are: each can be moved, taken off, undone. */
export function PhotoStage({ photo, onClose }: { readonly photo: PhotoRow; readonly onClose: () => void }) {
  const [edit, { problem }] = useEditPhoto();
  const [tool, setTool] = useState<Tool>("look");
  const [isLarge, setLarge] = useState(false);
  const [text, setText, dropText] = useDraft(`mark text ${photo.id}`, "");
  const [start, setStart] = useState<readonly [number, number] | null>(null);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [before, setBefore] = useState<readonly (readonly PhotoMark[])[]>([]);
  const drawing = useRef<SVGSVGElement>(null);
  const { widthPixels: width, heightPixels: height } = photo;

  function change(next: (marks: readonly PhotoMark[]) => readonly PhotoMark[]) {
    setBefore((steps) => [...steps, photo.marks].slice(-50));
    void edit(photo.id, (stored) => ({ marks: [...next(stored.marks)] }));
  }

  const chosen = photo.marks.find((mark) => mark.id === chosenId);

  function rewrite(mark: PhotoMark, next: string) {
    const written = next.trim();
    if (written === "" || written === mark.text) return;
    change((marks) => marks.map((one) => (one.id === mark.id ? { ...one, text: written } : one)));
  }

  function undo() {
    const last = before.at(-1);
    if (!last) return;
    setBefore((steps) => steps.slice(0, -1));
    void edit(photo.id, () => ({ marks: [...last] }));
  }

  useKeys("Photo", [
    { key: "z", label: "undo the last mark", action: undo },
    { key: "d", label: "pen: dot", action: () => setTool("dot") },
    { key: "a", label: "pen: arrow", action: () => setTool("arrow") },
    { key: "t", label: "pen: text", action: () => setTool("text") },
    { key: "f", label: "whole window, or beside the pane", action: () => setLarge((now) => !now) },
    { key: "Escape", label: "back to the board", action: onClose },
  ]);

  /** Where on the photo a click fell, in shares of its sides, at any zoom. */
  function placeOf(event: MouseEvent): readonly [number, number] | null {
    const matrix = drawing.current?.getScreenCTM();
    if (!matrix) return null;
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    const [x, y] = [point.x / width, point.y / height];
    return x >= 0 && x <= 1 && y >= 0 && y <= 1 ? [x, y] : null;
  }

  function onClick(event: MouseEvent) {
    const place = placeOf(event);
    if (!place || tool === "look") return setChosenId(null);
    if (tool === "arrow" && start === null) return setStart(place);
    if (tool === "text" && text.trim() === "") return;
    const [x, y] = tool === "arrow" && start ? start : place;
    const [toX, toY] = tool === "arrow" ? place : [null, null];
    const mark: PhotoMark = { id: newId(), kind: tool, x, y, toX, toY, text: tool === "text" ? text.trim() : null };
    change((marks) => [...marks, mark]);
    setStart(null);
    if (tool === "text") dropText();
  }

  function onMarkKey(event: KeyboardEvent, mark: PhotoMark) {
    const nudge = nudges[event.key];
    if (event.key === "Delete" || event.key === "Backspace")
      change((marks) => marks.filter((one) => one.id !== mark.id));
    else if (nudge) {
      change((marks) => marks.map((one) => (one.id === mark.id ? moved(one, nudge, event.shiftKey) : one)));
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  return (
    <section
      className={classes.stage}
      data-large={isLarge || undefined}
      aria-label={`Photo, ${photoKindLabels[photo.kind]}`}
    >
      <div className={classes.tools}>
        <EntryFieldset>
          <SegmentedControl
            aria-label="Pen"
            data={[
              { value: "look", label: "Look" },
              { value: "dot", label: "Dot" },
              { value: "arrow", label: "Arrow" },
              { value: "text", label: "Text" },
            ]}
            value={tool}
            onChange={(value) => {
              setTool(value as Tool);
              setStart(null);
            }}
          />
          {tool === "text" && (
            <TextInput
              size="xs"
              aria-label="Text of the mark"
              placeholder="text"
              maxLength={80}
              value={text}
              onChange={(event) => setText(event.currentTarget.value)}
            />
          )}
          {chosen?.kind === "text" && tool === "look" && (
            <CommittedText
              key={chosen.id}
              name={`mark ${chosen.id}`}
              size="xs"
              aria-label="Change the text of the mark"
              maxLength={80}
              value={chosen.text ?? ""}
              onCommit={(next) => rewrite(chosen, next)}
            />
          )}
          <Button size="xs" disabled={before.length === 0} onClick={undo}>
            Undo
          </Button>
        </EntryFieldset>
        <Button size="xs" aria-pressed={isLarge} onClick={() => setLarge(!isLarge)}>
          {isLarge ? "Beside the pane" : "Whole window"}
        </Button>
        <Button size="xs" onClick={onClose}>
          Back to the board
        </Button>
      </div>
      <ProblemNote problem={problem} />
      <div className={classes.canvas} data-tool={tool}>
        <TransformWrapper
          minScale={1}
          maxScale={8}
          doubleClick={{ disabled: true }}
          panning={{ disabled: tool !== "look" }}
        >
          <TransformComponent wrapperClass={classes.fill} contentClass={classes.fill}>
            {/* biome-ignore lint/a11y/useKeyWithClickEvents: marks are placed by pointing; each one then has its keys */}
            <svg
              ref={drawing}
              viewBox={`0 0 ${width} ${height}`}
              className={classes.fill}
              role="group"
              aria-label="Photo with marks"
              onClick={onClick}
            >
              <image href={photoImage(photo.id)} width={width} height={height} />
              {photo.marks.map((mark, index) => (
                <PhotoMarkDrawing
                  key={mark.id}
                  mark={mark}
                  name={`${mark.kind} ${index + 1}${mark.text ? `, ${mark.text}` : ""}`}
                  size={[width, height]}
                  isChosen={mark.id === chosenId}
                  onChoose={() => tool === "look" && setChosenId(mark.id)}
                  onKeyDown={(event) => onMarkKey(event, mark)}
                />
              ))}
              {start && <circle cx={start[0] * width} cy={start[1] * height} r={width / 120} fill="var(--failed)" />}
            </svg>
          </TransformComponent>
        </TransformWrapper>
      </div>
      <div className={classes.hint}>
        {photo.caption && <b>{photo.caption}. </b>}
        {hints[tool]}
      </div>
    </section>
  );
}

/** A mark a little further on, its arrow's head with it, never off the photo. */
function moved(mark: PhotoMark, [dx, dy]: readonly [number, number], isHeadOnly: boolean): PhotoMark {
  const shift = (share: number | null, by: number) =>
    share === null ? null : Math.min(Math.max(share + by * nudgeShare, 0), 1);
  const foot =
    isHeadOnly && mark.kind === "arrow" ? {} : { x: shift(mark.x, dx) as number, y: shift(mark.y, dy) as number };
  return {
    ...mark,
    ...foot,
    toX: shift(mark.toX, dx),
    toY: shift(mark.toY, dy),
  };
}
