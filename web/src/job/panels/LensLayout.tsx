import type { ReactNode } from "react";
import { EntryFieldset, useIsEntryClosed } from "../../ui/closedEntry";
import classes from "./layout.module.css";

/**
 * Every lens: the board in the middle, its pane at the right, perhaps a table below the board and a bar at the foot to
 * enter with, which a closed job does not have.
 */
export function LensLayout(props: {
  readonly board: ReactNode;
  readonly pane: ReactNode;
  readonly dock?: ReactNode;
  readonly foot?: ReactNode;
  readonly paneWidth?: "narrow" | "medium" | "wide";
}) {
  const isClosed = useIsEntryClosed();
  return (
    <div className={classes.lens}>
      <div className={classes.middle} data-pane={props.paneWidth ?? "narrow"} data-dock={props.dock ? true : undefined}>
        <div className={classes.boardCell}>{props.board}</div>
        <div className={classes.paneCell}>{props.pane}</div>
        {props.dock && (
          <div className={classes.dockCell}>
            <EntryFieldset>{props.dock}</EntryFieldset>
          </div>
        )}
      </div>
      {props.foot && !isClosed && <div className={classes.foot}>{props.foot}</div>}
    </div>
  );
}
