import type { PhotoMark } from "@pale-cap/contract";
import type { KeyboardEvent } from "react";
import classes from "./photos.module.css";

interface PhotoMarkDrawingProps {
  readonly mark: PhotoMark;
  readonly name: string;
  /** Width and height of the photo in pixels. */
  readonly size: readonly [number, number];
  readonly isChosen: boolean;
  readonly onChoose: () => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
}

/** One pen mark: a pale edge under the ink keeps it readable on any ground. */
export function PhotoMarkDrawing({ mark, name, size, isChosen, onChoose, onKeyDown }: PhotoMarkDrawingProps) {
  const [width, height] = size;
  const unit = Math.max(width, height) / 100;
  const [x, y] = [mark.x * width, mark.y * height];
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={name}
      aria-pressed={isChosen}
      className={classes.mark}
      onClick={(event) => {
        event.stopPropagation();
        onChoose();
      }}
      onFocus={onChoose}
      onKeyDown={onKeyDown}
    >
      {mark.kind === "dot" && (
        <circle cx={x} cy={y} r={unit * 1.3} fill="var(--pen)" stroke="var(--pen-edge)" strokeWidth={unit * 0.5} />
      )}
      {mark.kind === "arrow" && (
        <Arrow from={[x, y]} to={[(mark.toX ?? 0) * width, (mark.toY ?? 0) * height]} unit={unit} />
      )}
      {mark.kind === "text" && (
        <text
          x={x}
          y={y}
          fontSize={unit * 3.4}
          fontWeight={700}
          fill="var(--pen)"
          stroke="var(--pen-edge)"
          strokeWidth={unit * 0.9}
          paintOrder="stroke"
        >
          {mark.text}
        </text>
      )}
      {isChosen && (
        <circle
          cx={x}
          cy={y}
          r={unit * 2.6}
          fill="none"
          stroke="var(--pen)"
          strokeWidth={unit * 0.35}
          strokeDasharray={unit}
        />
      )}
    </g>
  );
}

function Arrow(props: {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly unit: number;
}) {
  const { from, to, unit } = props;
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const barb = (turn: number) =>
    `${to[0] - unit * 3.2 * Math.cos(angle + turn)} ${to[1] - unit * 3.2 * Math.sin(angle + turn)}`;
  const line = `M${from[0]} ${from[1]}L${to[0]} ${to[1]}M${barb(0.45)}L${to[0]} ${to[1]}L${barb(-0.45)}`;
  return (
    <>
      <path d={line} fill="none" stroke="var(--pen-edge)" strokeWidth={unit * 1.5} strokeLinecap="round" />
      <path d={line} fill="none" stroke="var(--pen)" strokeWidth={unit * 0.8} strokeLinecap="round" />
    </>
  );
}
