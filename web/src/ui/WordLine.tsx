import { Button, TextInput } from "@mantine/core";
import type { ReactNode } from "react";
import classes from "./ui.module.css";

/** One line of words and the key that takes them: Enter does the same, nothing but spaces does nothing. */
export function WordLine(props: {
  readonly label: string;
  readonly placeholder?: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly maxLength: number;
  readonly button: string;
  readonly onTake: (words: string) => void;
  readonly children?: ReactNode;
}) {
  const words = props.value.trim();
  return (
    <div className={classes.wordLine}>
      <TextInput
        size="xs"
        aria-label={props.label}
        placeholder={props.placeholder}
        maxLength={props.maxLength}
        value={props.value}
        onChange={(event) => props.onChange(event.currentTarget.value)}
        onKeyDown={(event) => event.key === "Enter" && words !== "" && props.onTake(words)}
      />
      <Button size="compact-sm" disabled={words === ""} onClick={() => props.onTake(words)}>
        {props.button}
      </Button>
      {props.children}
    </div>
  );
}
