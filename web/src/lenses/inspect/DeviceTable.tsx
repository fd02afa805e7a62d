import { ActionIcon, NativeSelect } from "@mantine/core";
import { boardLimits, type Position, type PositionValues } from "@pale-cap/contract";
import { type PartKind, partKinds } from "@pale-cap/core";
import { partKindLabels } from "@pale-cap/wording";
import { IconTrash } from "@tabler/icons-react";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { positionUpdate } from "../../job/positionUpdate";
import { useShownBoardEdit } from "../../job/useBoardEdit";
import { useTarget } from "../../job/useTarget";
import { CommittedText } from "../../ui/CommittedText";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import { type SortKey, useListOrder } from "../../ui/useListOrder";
import { resolveNet } from "./capacitorDraft";
import classes from "./inspect.module.css";
import { NetSelect } from "./NetSelect";
import { useRemovePosition } from "./useRemovePosition";

const heads = ["Part", "Kind", "Section or rail", "Marked", "Width", "Depth", "Tall", "x mm", "y mm", ""];

const sortKeys: Readonly<Record<string, (position: Position) => SortKey>> = {
  Part: (position) => position.designator,
  Kind: (position) => partKindLabels[position.kind],
  Marked: (position) => position.markedOhms,
  Width: (position) => position.outlineWidthMetres,
  Depth: (position) => position.outlineDepthMetres,
  Tall: (position) => position.outlineHeightMetres,
  "x mm": (position) => position.xMetres,
  "y mm": (position) => position.yMetres,
};
const textOf = (position: Position) => `${position.designator} ${partKindLabels[position.kind]}`.toLowerCase();

/** All parts that are no electrolytics, each editable in place: what the drawing can do, for the keyboard. */
export function DeviceTable() {
  const { shown: detail } = useJob();
  const [edit, { problem }] = useShownBoardEdit();
  const [target, select] = useTarget();
  const remove = useRemovePosition(edit);
  const rows = useMemo(
    () =>
      detail.positions
        .filter((one) => one.kind !== "electrolytic")
        .sort((a, b) => a.designator.localeCompare(b.designator, "en", { numeric: true })),
    [detail.positions],
  );
  const { shown, head } = useListOrder({ rows, sortKeys, textOf });
  if (rows.length === 0) return null;
  const change = (id: string, values: Partial<PositionValues>) =>
    void edit((latest) => positionUpdate(latest, id, values));
  return (
    <div className={classes.tableWrap}>
      <table className={`${text.table} ${classes.table}`} aria-label="Other parts">
        <thead>
          <tr>{heads.map(head)}</tr>
        </thead>
        <tbody>
          {shown.map((position) => {
            const { id, designator } = position;
            const size = (
              name: "outlineWidthMetres" | "outlineDepthMetres" | "outlineHeightMetres" | "xMetres" | "yMetres",
              label: string,
              most: number,
            ) => (
              <td data-unit="mm">
                <QuantityInput
                  label={`${designator}, ${label}`}
                  isLabelHidden
                  isCompact
                  size="xs"
                  unit="mm"
                  limits={[name === "xMetres" || name === "yMetres" ? 0 : 0.0005, most]}
                  value={position[name]}
                  onCommit={(value) => change(id, { [name]: value })}
                />
              </td>
            );
            return (
              <tr key={id} data-selected={target?.id === id || undefined} onFocus={() => select({ kind: "part", id })}>
                <td>
                  <CommittedText
                    name={`designator ${id}`}
                    size="xs"
                    aria-label={`${designator}, designator`}
                    value={designator}
                    classNames={{ input: classes.designator }}
                    autoComplete="off"
                    onCommit={(text) => {
                      const next = text.trim();
                      if (next !== "" && next !== designator) change(id, { designator: next });
                    }}
                  />
                </td>
                <td>
                  <NativeSelect
                    size="xs"
                    aria-label={`${designator}, kind`}
                    value={position.kind}
                    data={partKinds
                      .filter((kind) => kind !== "electrolytic")
                      .map((kind) => ({ value: kind, label: partKindLabels[kind] }))}
                    onChange={(event) => change(id, { kind: event.currentTarget.value as PartKind })}
                  />
                </td>
                <td>
                  <NetSelect
                    label={`${designator}, section or rail`}
                    value={position.netId ?? ""}
                    onChange={(choice) =>
                      void edit((latest) => {
                        const net = resolveNet(choice, latest.nets);
                        return [...net.changes, ...(positionUpdate(latest, id, { netId: net.id }) ?? [])];
                      })
                    }
                  />
                </td>
                <td data-unit="Ω">
                  {(position.kind === "resistor" || position.kind === "ntc") && (
                    <QuantityInput
                      label={`${designator}, marked resistance`}
                      isLabelHidden
                      isCompact
                      size="xs"
                      unit="Ω"
                      limits={[0.0001, 100e6]}
                      value={position.markedOhms}
                      onCommit={(markedOhms) => change(id, { markedOhms })}
                    />
                  )}
                </td>
                {size("outlineWidthMetres", "width", boardLimits.lengthMetres)}
                {size("outlineDepthMetres", "depth", boardLimits.lengthMetres)}
                {size("outlineHeightMetres", "height above the board", boardLimits.lengthMetres)}
                {size("xMetres", "x", boardLimits.boardMetres)}
                {size("yMetres", "y", boardLimits.boardMetres)}
                <td>
                  <ActionIcon
                    variant="subtle"
                    color="gray"
                    aria-label={`Take ${designator} off the list`}
                    onClick={() => void remove(position)}
                  >
                    <IconTrash size={16} />
                  </ActionIcon>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <ProblemNote problem={problem} />
    </div>
  );
}
