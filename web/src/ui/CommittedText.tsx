import { TextInput, type TextInputProps } from "@mantine/core";
import { useContext, useEffect, useRef } from "react";
import { DraftScope } from "./QuantityInput";
import { TypedOverNote } from "./TypedOverNote";
import { useDraft } from "./useDraft";
import { useTypedOver } from "./useTypedOver";

type CommittedTextProps = Omit<TextInputProps, "value" | "defaultValue" | "onChange" | "onBlur" | "onSubmit"> & {
  /** As it is stored. */
  readonly value: string;
  /** Names its draft within its lens. */
  readonly name: string;
  /** Called with what was typed when the field is left, Enter is pressed, or its lens is left. */
  readonly onCommit: (text: string) => void;
};

/**
 * A line of text that stores itself when it is left, however it is left; Escape throws what was typed away. Where somebody else stored
 * another text meanwhile it stores nothing: both stand there until a person says which.
 */
export function CommittedText({ value, name, onCommit, onKeyDown, ...rest }: CommittedTextProps) {
  const scope = useContext(DraftScope) ?? "shop";
  const place = `${scope} ${name}`;
  const [text, setText, dropText] = useDraft(place, value);
  const { isConflict, sent, seen } = useTypedOver(place, value, text);
  const commit = useRef<() => void>(() => undefined);
  commit.current = () => {
    if (text === value || isConflict) return;
    // Spaces at its ends are nobody's words: as it is sent, it comes back.
    const said = text.trim();
    sent(said);
    setText(said);
    if (said !== value) onCommit(said);
  };
  useEffect(() => () => commit.current(), []);
  const keep = (kept: string) => {
    seen();
    setText(kept);
    if (kept !== value) onCommit(kept);
  };
  const field = (
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
  if (!isConflict) return field;
  return (
    <div>
      {field}
      <TypedOverNote
        stored={value}
        onMine={() => keep(text)}
        onTheirs={() => dropText()}
        onBoth={value !== "" && text !== "" ? () => keep(`${value}; ${text}`) : undefined}
      />
    </div>
  );
}
