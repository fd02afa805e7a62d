import { createContext, type ReactNode, useContext } from "react";
import classes from "./ui.module.css";

/** Whether nothing may be entered here, because the job is closed. */
const ClosedEntry = createContext(false);
export const ClosedEntryProvider = ClosedEntry.Provider;
export const useIsEntryClosed = () => useContext(ClosedEntry);

/** Takes every field and button in it at once on a closed job; ways to look at things stay outside. */
export function EntryFieldset({ children }: { readonly children: ReactNode }) {
  return (
    <fieldset className={classes.entries} disabled={useIsEntryClosed()}>
      {children}
    </fieldset>
  );
}
