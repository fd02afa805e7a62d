import type { ReactNode } from "react";
import { NavLink, Outlet } from "react-router";
import text from "./text.module.css";
import classes from "./ui.module.css";

/** A place with several pages: its name, the pages beside it, and the one that is open below. */
export function PageTabs(props: {
  readonly title: string;
  readonly tabs: readonly (readonly [path: string, name: string])[];
  readonly aside?: ReactNode;
}) {
  return (
    <div className={`${text.page} ${classes.widePage}`}>
      <header className={classes.pageHead}>
        <h1>{props.title}</h1>
        <nav className={classes.tabs} aria-label={props.title}>
          {props.tabs.map(([path, name]) => (
            <NavLink key={path} to={path} end className={classes.tab}>
              {name}
            </NavLink>
          ))}
        </nav>
        {props.aside}
      </header>
      <Outlet />
    </div>
  );
}
