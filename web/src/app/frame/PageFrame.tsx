import { Outlet } from "react-router";
import classes from "./frame.module.css";
import { KeysHelp } from "./KeysHelp";
import { TopStrip } from "./TopStrip";

/** A place outside a job. */
export function PageFrame() {
  return (
    <div className={classes.page}>
      <TopStrip />
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keys, also where nothing in it takes the focus */}
      <main className={classes.pageBody} tabIndex={0}>
        <Outlet />
      </main>
      <KeysHelp />
    </div>
  );
}
