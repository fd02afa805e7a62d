import { Button, Modal, NativeSelect } from "@mantine/core";
import type { BoardValues, PhotoRow } from "@pale-cap/contract";
import { photoKindLabels } from "@pale-cap/wording";
import { type KeyboardEvent, type MouseEvent, useRef, useState } from "react";
import { useJob } from "../../job/JobContext";
import { photoImage, photoThumbnail } from "../../job/photoApi";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./inspect.module.css";

type Pixel = [number, number];

/** Lays a photo of the job beneath the drawing, by two clicked points and what is known of them. */
export function PhotoBeneath({ onChange }: { readonly onChange: (values: Partial<BoardValues>) => void }) {
  const { shown: detail } = useJob();
  const photos = detail.photos.filter((one) => !one.isRemoved);
  const [chosen, setChosen] = useState<PhotoRow | null>(null);
  const { underlay } = detail.board;
  if (photos.length === 0) return <p className={text.soft}>A photo from Intake can lie beneath the drawing.</p>;
  return (
    <div className={classes.beneath}>
      <span className={text.soft}>{underlay ? "A photo lies beneath." : "Photo beneath the drawing:"}</span>
      {photos.slice(0, 6).map((photo) => (
        <button
          type="button"
          key={photo.id}
          className={classes.thumbnail}
          aria-label={`Lay photo beneath: ${photo.caption ?? photoKindLabels[photo.kind]}`}
          aria-pressed={underlay?.photoId === photo.id}
          onClick={() => setChosen(photo)}
        >
          <img src={photoThumbnail(photo.id)} alt="" />
        </button>
      ))}
      {underlay && (
        <Button size="compact-xs" onClick={() => onChange({ underlay: null })}>
          Take it away
        </Button>
      )}
      {chosen && (
        <Aligning
          photo={chosen}
          onClose={() => setChosen(null)}
          onAligned={(alignment) => {
            onChange({ underlay: { photoId: chosen.id, ...alignment } });
            setChosen(null);
          }}
        />
      )}
    </div>
  );
}

type Alignment = Omit<NonNullable<BoardValues["underlay"]>, "photoId">;

const directions: Readonly<Record<string, readonly [number, number]>> = {
  right: [1, 0],
  down: [0, 1],
  left: [-1, 0],
  up: [0, -1],
};

/** Two clicks on the photo, the distance between them, and where the first lies on the board. */
function Aligning(props: {
  readonly photo: PhotoRow;
  readonly onClose: () => void;
  readonly onAligned: (alignment: Alignment) => void;
}) {
  const { photo } = props;
  const picture = useRef<SVGSVGElement>(null);
  const [points, setPoints] = useState<readonly Pixel[]>([]);
  const [distance, setDistance] = useState<number | null>(null);
  const [direction, setDirection] = useState("right");
  const [x, setX] = useState<number | null>(0);
  const [y, setY] = useState<number | null>(0);
  /** Where the arrow keys have brought the mark; Enter sets a point there. */
  const [cursor, setCursor] = useState<Pixel | null>(null);
  const add = (point: Pixel) => setPoints((now) => [...(now.length === 2 ? [] : now), point]);
  function onKeyDown(event: KeyboardEvent) {
    const step = photo.widthPixels / (event.shiftKey ? 400 : 50);
    const [cx, cy] = cursor ?? [photo.widthPixels / 2, photo.heightPixels / 2];
    const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (arrow) setCursor([Math.round(cx + (arrow[0] ?? 0) * step), Math.round(cy + (arrow[1] ?? 0) * step)]);
    else if (event.key === "Enter") add([Math.round(cx), Math.round(cy)]);
    else return;
    event.preventDefault();
  }
  function click(event: MouseEvent) {
    const matrix = picture.current?.getScreenCTM();
    if (!matrix) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    add([Math.round(at.x), Math.round(at.y)]);
  }
  const [first, second] = points;
  const isApart = first && second && Math.hypot(first[0] - second[0], first[1] - second[1]) > 5;
  const hint = !first
    ? "Click the first point, for instance a corner of the board."
    : !second
      ? "Click the second point, for instance the next corner."
      : "Say how far apart they are and where the first one lies. A third click starts anew.";
  return (
    <Modal
      opened
      onClose={props.onClose}
      title="Lay the photo beneath the board"
      size="xl"
      transitionProps={{ duration: 60 }}
    >
      <p className={text.soft}>{hint}</p>
      <svg
        ref={picture}
        className={classes.alignPicture}
        viewBox={`0 0 ${photo.widthPixels} ${photo.heightPixels}`}
        role="application"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a point is set by arrow keys and Enter
        tabIndex={0}
        aria-label="Photo to align: click two points, or arrow keys and Enter"
        onClick={click}
        onKeyDown={onKeyDown}
      >
        <image href={photoImage(photo.id)} width={photo.widthPixels} height={photo.heightPixels} />
        {cursor && (
          <path
            className={classes.alignMark}
            d="M-14 0H14M0-14V14"
            transform={`translate(${cursor[0]} ${cursor[1]}) scale(${photo.widthPixels / 800})`}
          />
        )}
        {points.map(([px, py], n) => (
          <g key={`${px} ${py}`} transform={`translate(${px} ${py}) scale(${photo.widthPixels / 800})`}>
            <circle r="9" className={classes.alignMark} />
            <text x="13" y="5" className={classes.alignName}>
              {n + 1}
            </text>
          </g>
        ))}
      </svg>
      <div className={classes.alignFields}>
        <QuantityInput label="Distance 1 to 2" unit="mm" limits={[0.001, 1]} value={distance} onChange={setDistance} />
        <NativeSelect
          label="2 lies from 1 to the"
          data={Object.keys(directions)}
          value={direction}
          onChange={(event) => setDirection(event.currentTarget.value)}
        />
        <QuantityInput label="1 lies at x" unit="mm" limits={[0, 1]} value={x} onChange={setX} />
        <QuantityInput label="and y" unit="mm" limits={[0, 1]} value={y} onChange={setY} />
        <Button
          disabled={!isApart || distance === null || x === null || y === null}
          onClick={() => {
            if (!first || !second || distance === null || x === null || y === null) return;
            const [dx, dy] = directions[direction] ?? [1, 0];
            props.onAligned({
              fromPixels: [...first],
              toPixels: [...second],
              fromMetres: [x, y],
              toMetres: [x + dx * distance, y + dy * distance],
            });
          }}
        >
          Lay it beneath
        </Button>
      </div>
    </Modal>
  );
}
