import type { PhotoMark } from "@pale-cap/contract";
import type { KeyboardEvent } from "react";
import { PhotoMarkShape } from "../../drawing/PhotoMarkShape";
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
      <PhotoMarkShape mark={mark} size={size} />
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
