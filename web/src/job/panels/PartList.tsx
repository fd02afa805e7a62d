import { TextInput } from "@mantine/core";
import type { Position } from "@pale-cap/contract";
import { capacitorsInOrder, type PlacedCapacitor } from "@pale-cap/contract";
import { formatMarkedCapacitance } from "@pale-cap/core";
import { partKindLabels, verdictLabels } from "@pale-cap/wording";
import { useMemo } from "react";
import type { PartLook } from "../../drawing/BoardDrawing";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import { type SortKey, useListOrder } from "../../ui/useListOrder";
import { useJob } from "../JobContext";
import classes from "./layout.module.css";

interface PartListProps {
  readonly look: (positionId: string) => PartLook;
  readonly selectedId: string | undefined;
  readonly onSelect: (positionId: string) => void;
  /** Where parts are arranged: Shift with a click or Enter marks one more. */
  readonly onMark?: (positionId: string) => void;
  readonly markedIds?: ReadonlySet<string>;
}

interface ListedPart extends PlacedCapacitor {
  readonly state: string;
}

const columns: readonly string[] = ["Part", "Kind", "Net", "C", "V", "Class", "Size", "State"];

const partOf = (row: ListedPart) => row.current ?? row.found;

/** What a column is sorted by; text by text, numbers by size, unknown last. */
const sortKeys: Readonly<Record<string, (row: ListedPart) => SortKey>> = {
  Part: (row) => row.position.designator,
  Kind: (row) => partKindLabels[row.position.kind],
  Net: (row) => row.net?.name ?? null,
  C: (row) => partOf(row)?.capacitanceFarads ?? null,
  V: (row) => partOf(row)?.ratedVolts ?? null,
  Class: (row) => partOf(row)?.temperatureClassCelsius ?? null,
  Size: (row) => partOf(row)?.diameterMetres ?? null,
  State: (row) => row.state || null,
};

/** Every part of the board as a table: the same selection as the drawing, sorted by any column, narrowed by any word. */
export function PartList({ look, selectedId, onSelect, onMark, markedIds }: PartListProps) {
  const { detail } = useJob();
  const rows = useMemo(() => {
    const capacitors = capacitorsInOrder(detail);
    const others = detail.positions.filter((one) => one.kind !== "electrolytic").map(withoutPart);
    return [...capacitors, ...others].map((row): ListedPart => ({ ...row, state: stateWords(look(row.position.id)) }));
  }, [detail, look]);
  const { shown, filter, setFilter, head } = useListOrder({ rows, sortKeys, textOf });

  return (
    <div className={classes.list}>
      <TextInput
        size="xs"
        aria-label="Narrow the list"
        placeholder="narrow: 16 v, failed, fuse"
        value={filter}
        onChange={(event) => setFilter(event.currentTarget.value)}
      />
      <table className={`${text.table} ${classes.table}`}>
        <thead>
          <tr>{columns.map(head)}</tr>
        </thead>
        <tbody>
          {shown.map((row) => {
            const { position, net } = row;
            const part = partOf(row);
            const { verdict } = look(position.id);
            const isCapacitor = position.kind === "electrolytic";
            return (
              <tr key={position.id} data-selected={position.id === selectedId || undefined}>
                <td>
                  <button
                    type="button"
                    className={classes.rowButton}
                    aria-pressed={onMark ? markedIds?.has(position.id) : undefined}
                    data-marked={markedIds?.has(position.id) || undefined}
                    onClick={(event) => (event.shiftKey && onMark ? onMark(position.id) : onSelect(position.id))}
                  >
                    {position.designator}
                  </button>
                </td>
                <td>{partKindLabels[position.kind]}</td>
                <td>{net?.name ?? "–"}</td>
                <td>{isCapacitor && <Quantity value={part?.capacitanceFarads ?? null} unit="F" isMarking />}</td>
                <td>{isCapacitor && <Quantity value={part?.ratedVolts ?? null} unit="V" />}</td>
                <td>{isCapacitor && <Quantity value={part?.temperatureClassCelsius ?? null} unit="°C" />}</td>
                <td>
                  <Quantity value={part?.diameterMetres ?? position.outlineWidthMetres} unit="mm" /> ×{" "}
                  <Quantity value={part?.heightMetres ?? position.outlineDepthMetres} unit="mm" />
                </td>
                <td>
                  {verdict && <VerdictGlyph verdict={verdict} size={13} />} {row.state}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {shown.length === 0 && <p className={classes.empty}>No part of this board says all of that.</p>}
    </div>
  );
}

function withoutPart(position: Position): PlacedCapacitor {
  return { position, net: undefined, found: undefined, current: undefined };
}

function stateWords(look: PartLook): string {
  const words = [look.verdict && verdictLabels[look.verdict], look.seen, look.note, look.isEmpty && "taken out"];
  return words.filter(Boolean).join(", ");
}

/** All that a row says, as one searchable line. */
function textOf(row: ListedPart): string {
  const part = partOf(row);
  const { capacitanceFarads = null, ratedVolts = null, temperatureClassCelsius = null } = part ?? {};
  const words = [
    row.position.designator,
    partKindLabels[row.position.kind],
    row.net?.name,
    capacitanceFarads === null ? "" : formatMarkedCapacitance(capacitanceFarads),
    ratedVolts === null ? "" : `${ratedVolts} V`,
    temperatureClassCelsius === null ? "" : `${temperatureClassCelsius} °C`,
    part?.series,
    row.state,
  ];
  return words.filter(Boolean).join(" ").toLowerCase();
}
