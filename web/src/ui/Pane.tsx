import type { ReactNode } from "react";
import { EntryFieldset } from "./closedEntry";
import classes from "./ui.module.css";

/**
 * The pane at the right of the board: a heading that stays, content that scrolls. Its second part follows below, on a wide
 * screen in a column of its own: what stands where never depends on how long a list grew. On a closed job its content
 * offers no entry; one with things to look at among the fields puts `EntryFieldset` around the fields itself.
 */
export function Pane(props: {
  readonly title: ReactNode;
  readonly note?: ReactNode;
  readonly actions?: ReactNode;
  readonly hasOwnEntries?: boolean;
  readonly children: ReactNode;
  readonly second?: ReactNode;
}) {
  const content = props.second ? <Columns second={props.second}>{props.children}</Columns> : props.children;
  return (
    <div className={classes.pane}>
      <header className={classes.paneHead}>
        <h2 className={classes.paneTitle}>{props.title}</h2>
        {props.note && <div className={classes.paneNote}>{props.note}</div>}
        {props.actions && <div className={classes.paneActions}>{props.actions}</div>}
      </header>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keys, also where nothing in it takes the focus */}
      <div className={classes.paneBody} tabIndex={0}>
        {props.hasOwnEntries ? content : <EntryFieldset>{content}</EntryFieldset>}
      </div>
    </div>
  );
}

/** Two parts, one below the other; on a wide screen side by side, and the pane around them takes more room. */
export function Columns(props: {
  readonly children: ReactNode;
  readonly second: ReactNode;
  readonly isHidden?: boolean;
}) {
  return (
    <div className={classes.columns} data-columns hidden={props.isHidden}>
      <div>{props.children}</div>
      <div>{props.second}</div>
    </div>
  );
}

/** A titled part of a pane. */
export function Part(props: { readonly title: string; readonly aside?: ReactNode; readonly children: ReactNode }) {
  return (
    <section className={classes.part}>
      <div className={classes.partHead}>
        <h3 className={classes.partTitle}>{props.title}</h3>
        {props.aside}
      </div>
      {props.children}
    </section>
  );
}
