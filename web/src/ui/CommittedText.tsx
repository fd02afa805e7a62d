import { TextInput, type TextInputProps } from "@mantine/core";
import { useContext, useEffect, useRef } from "react";
import { DraftScope } from "./QuantityInput";
import { useDraft } from "./useDraft";

type CommittedTextProps = Omit<TextInputProps, "value" | "defaultValue" | "onChange" | "onBlur" | "onSubmit"> & {
  /** As it is stored. */
  readonly value: string;
  /** Names its draft within its lens. */
  readonly name: string;
  /** Called with what was typed when the field is left, Enter is pressed, or its lens is left. */
  readonly onCommit: (text: string) => void;
};

/** A line of text that stores itself when it is left, however it is left; Escape throws what was typed away. */
export function CommittedText({ value, name, onCommit, onKeyDown, ...rest }: CommittedTextProps) {
  const scope = useContext(DraftScope) ?? "shop";
  const [text, setText, dropText] = useDraft(`${scope} ${name}`, value);
  const commit = useRef<() => void>(() => undefined);
  commit.current = () => {
    if (text !== value) onCommit(text);
  };
  useEffect(() => () => commit.current(), []);
  return (
    <TextInput
      {...rest}
      value={text}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => commit.current()}
      onKeyDown={(event) => {
        if (event.key === "Enter") commit.current();
        if (event.key === "Escape") dropText();
        onKeyDown?.(event);
      }}
    />
  );
}
