import type { BoardDetail } from "@pale-cap/contract";
import type { ReactNode } from "react";
import text from "../ui/text.module.css";
import { BoardDrawing, type PartLook } from "./BoardDrawing";
import classes from "./drawing.module.css";

const nothing = () => undefined;

/** A board to look at: nothing is selected on it. */
export function StillBoard(props: {
  readonly shown: Pick<BoardDetail, "board" | "nets" | "positions" | "fittedParts">;
  readonly look: (positionId: string) => PartLook;
  readonly children: ReactNode;
}) {
  const { board, nets, positions, fittedParts } = props.shown;
  return (
    <figure className={classes.still}>
      <div className={classes.stillBoard}>
        <BoardDrawing
          {...{ board, nets, positions, fittedParts }}
          look={props.look}
          selectedId={undefined}
          bankIds={[]}
          onSelect={nothing}
        />
      </div>
      <figcaption className={text.soft}>{props.children}</figcaption>
    </figure>
  );
}
