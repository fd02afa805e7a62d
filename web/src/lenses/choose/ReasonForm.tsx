import { Button, TextInput } from "@mantine/core";
import classes from "./choose.module.css";

/** Why a part is taken that breaks a limit: kept with the choice. */
export function ReasonForm(props: {
  readonly reason: string;
  readonly onChange: (reason: string) => void;
  readonly onTake: (reason: string) => void;
}) {
  const reason = props.reason.trim();
  return (
    <span className={classes.because}>
      <TextInput
        size="xs"
        aria-label="Why it is taken all the same"
        placeholder="because"
        maxLength={200}
        value={props.reason}
        autoFocus
        onChange={(event) => props.onChange(event.currentTarget.value)}
      />
      <Button size="compact-sm" variant="filled" disabled={reason === ""} onClick={() => props.onTake(reason)}>
        Take it
      </Button>
    </span>
  );
}
