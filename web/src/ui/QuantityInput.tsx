import { TextInput } from "@mantine/core";
import { formatMarkedCapacitance, formatQuantity, parseQuantity, type SiPrefix, type Unit } from "@pale-cap/core";
import { failureWords } from "@pale-cap/wording";
import { createContext, type KeyboardEvent, useContext, useEffect, useRef, useState } from "react";
import words from "./text.module.css";
import classes from "./ui.module.css";
import { readDraft, writeDraft } from "./useDraft";

/** What the fields below belong to: with it, a number that is typed and not stored is kept. null: it is not. */
export const DraftScope = createContext<string | null>(null);

export interface QuantityInputProps {
  readonly label: string;
  readonly unit: Unit;
  /** SI; null while unknown. */
  readonly value: number | null;
  /** Called as soon as the text is understood (null when cleared); not while it is not understood. */
  readonly onChange?: (value: number | null) => void;
  /** Called when the field is left or Enter is pressed with a value that changed and is understood. */
  readonly onCommit?: (value: number | null) => void;
  /** Tells the form whether the text stands for something. */
  readonly onValidity?: (isValid: boolean) => void;
  readonly defaultPrefix?: SiPrefix;
  readonly limits?: readonly [number, number];
  readonly error?: string;
  readonly placeholder?: string;
  /** Significant digits in which a value from outside is printed. */
  readonly digits?: number;
  readonly isLabelHidden?: boolean;
  /** In a table: no unit behind the text, the heading carries it. */
  readonly isCompact?: boolean;
  readonly size?: "xs" | "sm" | "md";
  readonly onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
  readonly id?: string;
  /** What stands there is replaced by the next key. */
  readonly isSelectedOnFocus?: boolean;
}

/** A number with a unit, typed as on the bench. The text stays as typed; what was understood stands beside it. */
export function QuantityInput(props: QuantityInputProps) {
  const { unit, value, defaultPrefix = "" } = props;
  const digits = props.digits ?? 6;
  const scope = useContext(DraftScope);
  const draftName = scope && `${scope} ${props.id ?? props.label}`;
  const [kept] = useState(() => (draftName ? readDraft<string>(draftName) : undefined));
  const [text, setText] = useState(() => kept ?? print(value, unit, digits));
  const [sent, setSent] = useState(value);
  /** Only what a person typed is committed: a rounded print of a computed value is not an entry. */
  const [isTyped, setTyped] = useState(kept !== undefined);
  // A value from outside (another job, an undo) replaces the text; one's own echo does not. While rendering, not after it:
  // between a form that empties itself and an effect another key may fall, and would stand behind the old number.
  if (!Object.is(value, sent)) {
    setText(print(value, unit, digits));
    setSent(value);
    setTyped(false);
  }
  const parsed = parseQuantity(text, unit, defaultPrefix);
  const problem = problemOf(text, parsed, props.limits, unit);

  // What is typed and stands for nothing yet, or is not handed in yet, outlives the page.
  const isWaiting = props.onCommit !== undefined && (parsed.ok ? parsed.value : null) !== value;
  const isUnsent = isTyped && (problem !== undefined || isWaiting);
  useEffect(() => {
    if (draftName) writeDraft(draftName, text, !isUnsent);
  }, [draftName, text, isUnsent]);
  const { onValidity } = props;
  const isKeptTold = useRef(kept === undefined);
  useEffect(() => {
    if (isKeptTold.current) return;
    isKeptTold.current = true;
    onValidity?.(false);
  }, [onValidity]);

  /** Thrown away by a person: what is stored stands there again. */
  function throwAway() {
    setText(print(value, unit, digits));
    setTyped(false);
    props.onValidity?.(true);
  }

  function change(next: string) {
    setText(next);
    setTyped(true);
    const result = parseQuantity(next, unit, defaultPrefix);
    const isEmpty = next.trim() === "";
    const isValid = isEmpty || (result.ok && problemOf(next, result, props.limits, unit) === undefined);
    props.onValidity?.(isValid);
    if (!isValid) return;
    const understood = result.ok ? result.value : null;
    if (!props.onChange) return;
    setSent(understood);
    props.onChange(understood);
  }

  function commit() {
    if (!props.onCommit || !isTyped || problem) return;
    const understood = parsed.ok ? parsed.value : null;
    if (understood !== value) props.onCommit(understood);
  }

  // A lens is left by a key as well: then nothing tells the field that it is left.
  const latest = useRef(commit);
  latest.current = commit;
  useEffect(() => () => latest.current(), []);

  const understood = parsed.ok && !problem ? print(parsed.value, unit, 4) : "";
  // The unit is said once: behind the number, or beside a field that has none in it.
  const beside = understood !== text && unit !== "" ? understood : text.includes(unit) ? "" : unit;
  return (
    <TextInput
      id={props.id}
      label={props.isLabelHidden ? undefined : props.label}
      aria-label={props.isLabelHidden ? props.label : undefined}
      size={props.size ?? "sm"}
      value={text}
      placeholder={props.placeholder}
      onChange={(event) => change(event.currentTarget.value)}
      onBlur={commit}
      onFocus={props.isSelectedOnFocus ? (event) => event.currentTarget.select() : undefined}
      onKeyDown={(event) => {
        if (event.key === "Enter") commit();
        if (event.key === "Escape" && isUnsent) throwAway();
        props.onKeyDown?.(event);
      }}
      error={problem ?? props.error}
      autoComplete="off"
      spellCheck={false}
      rightSection={props.isCompact ? undefined : <span className={classes.understood}>{beside}</span>}
      rightSectionWidth={props.size === "xs" ? 46 : 74}
      rightSectionPointerEvents="none"
      classNames={{ input: props.isCompact ? classes.compact : words.figure }}
    />
  );
}

function print(value: number | null, unit: Unit, significantDigits: number): string {
  if (value === null) return "";
  if (unit === "F") return formatMarkedCapacitance(value).replace("\u00a0", " ");
  const printed = formatQuantity(value, unit, { significantDigits });
  return ["mm", "%", "°C", ""].includes(unit) ? printed.number : printed.text.replace("\u00a0", " ");
}

function problemOf(
  text: string,
  parsed: ReturnType<typeof parseQuantity>,
  limits: readonly [number, number] | undefined,
  unit: Unit,
): string | undefined {
  if (text.trim() === "") return undefined;
  if (!parsed.ok) return failureWords(parsed.failure);
  if (!limits) return undefined;
  const [least, most] = limits;
  const name = (bound: number) => formatQuantity(bound, unit).text;
  if (parsed.value < least) return `At least ${name(least)}; a unit slipped?`;
  if (parsed.value > most) return `At most ${name(most)}; a unit slipped?`;
  return undefined;
}
