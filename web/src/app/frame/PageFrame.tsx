import { Outlet } from "react-router";
import classes from "./frame.module.css";
import { KeysHelp } from "./KeysHelp";
import { TopStrip } from "./TopStrip";

/** A place outside a job. */
export function PageFrame() {
  return (
    <div className={classes.page}>
      <TopStrip />
      <main className={classes.pageBody}>
        <Outlet />
      </main>
      <KeysHelp />
    </div>
  );
}
