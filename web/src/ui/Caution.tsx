import type { ReactNode } from "react";
import classes from "./ui.module.css";

/** A caution at the place where a step can hurt: short, specific, and the same mark everywhere. */
export function Caution(props: { readonly children: ReactNode }) {
  return (
    <aside className={classes.caution} aria-label="Caution">
      <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
        <path d="M10 1.5 19 18H1z" fill="none" stroke="currentColor" strokeWidth="1.6" strokeLinejoin="round" />
        <path d="M11 6 8.2 11h3L9.4 15.5" fill="none" stroke="currentColor" strokeWidth="1.4" />
      </svg>
      <div>{props.children}</div>
    </aside>
  );
}
