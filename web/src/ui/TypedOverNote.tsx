import { Button } from "@mantine/core";
import classes from "./ui.module.css";

/** What somebody else stored in a field while it was typed in: both stand there until a person says which. */
export function TypedOverNote(props: {
  readonly stored: string;
  readonly onMine: () => void;
  readonly onTheirs: () => void;
  /** One after the other; where that makes sense. */
  readonly onBoth?: (() => void) | undefined;
}) {
  return (
    <div role="alert" className={classes.typedOver}>
      Stored meanwhile by somebody else: <b>{props.stored || "nothing"}</b>{" "}
      <Button size="compact-xs" onClick={props.onMine}>
        Mine
      </Button>{" "}
      <Button size="compact-xs" onClick={props.onTheirs}>
        Theirs
      </Button>{" "}
      {props.onBoth && (
        <Button size="compact-xs" onClick={props.onBoth}>
          Both
        </Button>
      )}
    </div>
  );
}
