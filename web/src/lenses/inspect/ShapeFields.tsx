import { Textarea } from "@mantine/core";
import type { Board, BoardValues } from "@pale-cap/contract";
import { useContext } from "react";
import { DraftScope } from "../../ui/QuantityInput";
import { useDraft } from "../../ui/useDraft";
import { parseLidZones, parseOutline, printLidZones, printOutline, type ShapeText } from "./boardShape";

/** Outline and lid of a board that is no plain box, each as a short text. */
export function ShapeFields(props: {
  readonly board: Board;
  readonly onChange: (values: Partial<BoardValues>) => void;
}) {
  const { board, onChange } = props;
  return (
    <>
      <ShapeField
        label="Corners, if it is no rectangle (x/y in mm)"
        placeholder="0/0 150/0 150/80 120/104 0/104"
        stored={printOutline(board.outline)}
        parse={(text) => parseOutline(text, board)}
        onValue={(outline) => onChange({ outline })}
      />
      <ShapeField
        label="Lid by zone, one a line (x/y, size, height in mm)"
        placeholder="90/0 60x104 h18"
        stored={printLidZones(board.lidZones)}
        parse={parseLidZones}
        onValue={(lidZones) => onChange({ lidZones })}
      />
    </>
  );
}

function ShapeField<T>(props: {
  readonly label: string;
  readonly placeholder: string;
  readonly stored: string;
  readonly parse: (text: string) => ShapeText<T>;
  readonly onValue: (value: T) => void;
}) {
  const [typed, setTyped, dropTyped] = useDraft<string | null>(`${useContext(DraftScope) ?? ""} ${props.label}`, null);
  const parsed = typed === null ? null : props.parse(typed);
  const problem = parsed && "problem" in parsed ? parsed.problem : undefined;
  return (
    <Textarea
      size="xs"
      autosize
      minRows={1}
      label={props.label}
      placeholder={props.placeholder}
      value={typed ?? props.stored}
      error={problem}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={() => {
        if (!parsed || "problem" in parsed) return;
        if (typed?.trim() !== props.stored) props.onValue(parsed.value);
        dropTyped();
      }}
    />
  );
}
