import { Button } from "@mantine/core";
import { useKeys } from "../../ui/useKeys";
import classes from "./inspect.module.css";
import type { useArranging } from "./useArranging";

type Acts = ReturnType<typeof useArranging>["acts"];

/** What can be done with several parts at once. */
export function MarkedParts({ count, acts }: { readonly count: number; readonly acts: Acts }) {
  useKeys("Marked parts", [
    { key: "=", label: "marked parts into one row", action: acts.alignRow },
    { key: "|", label: "marked parts into one column", action: acts.alignColumn },
    { key: "Escape", label: "unmark", action: acts.clear },
  ]);
  return (
    <div className={classes.marked} role="toolbar" aria-label="Marked parts">
      <b>{count} marked</b>
      <Button size="compact-sm" disabled={count < 2} onClick={acts.alignRow}>
        One row
      </Button>
      <Button size="compact-sm" disabled={count < 2} onClick={acts.alignColumn}>
        One column
      </Button>
      <Button size="compact-sm" disabled={count < 3} onClick={acts.space}>
        Equal steps
      </Button>
      <Button size="compact-sm" onClick={acts.turn}>
        Turn
      </Button>
      <Button size="compact-sm" onClick={acts.duplicate}>
        Copy row below
      </Button>
      <Button size="compact-sm" onClick={acts.clear}>
        Unmark
      </Button>
    </div>
  );
}
