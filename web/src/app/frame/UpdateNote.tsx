import { Button } from "@mantine/core";
import { useSyncExternalStore } from "react";
import { shellUpdate } from "../../offline/shellUpdate";
import classes from "./frame.module.css";

/** A newer client was found: it is taken when a person says so, never under their hands. */
export function UpdateNote() {
  const take = useSyncExternalStore(shellUpdate.subscribe, shellUpdate.get);
  if (!take) return null;
  return (
    <span role="status" className={classes.serverNote}>
      A newer Pale Cap is here. Taking it opens this page anew.{" "}
      <Button size="compact-sm" onClick={take}>
        Take it
      </Button>
    </span>
  );
}
