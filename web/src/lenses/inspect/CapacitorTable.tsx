import { ActionIcon, Button, NativeSelect, TextInput } from "@mantine/core";
import {
  boardLimits,
  capacitorsInOrder,
  type FittedPartValues,
  type PlacedCapacitor,
  type PositionValues,
  type Problem,
} from "@pale-cap/contract";
import { capacitorClasses, formatMarkedCapacitance } from "@pale-cap/core";
import { IconTrash } from "@tabler/icons-react";
import { type KeyboardEvent, type ReactNode, useMemo, useRef, useState } from "react";
import { useJob } from "../../job/JobContext";
import { positionUpdate } from "../../job/positionUpdate";
import { type ChangesFrom, useShownBoardEdit } from "../../job/useBoardEdit";
import { useTarget } from "../../job/useTarget";
import { CommittedText } from "../../ui/CommittedText";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { useInvalidFields } from "../../ui/useInvalidFields";
import { type SortKey, useListOrder } from "../../ui/useListOrder";
import { type CapacitorDraft, emptyDraft, foundPartUpdate, insertion, nextDraft, resolveNet } from "./capacitorDraft";
import { nextCapacitor } from "./designators";
import classes from "./inspect.module.css";
import { NetSelect } from "./NetSelect";
import { useRemovePosition } from "./useRemovePosition";

const length = [0.0005, boardLimits.lengthMetres] as const;
const place = [0, boardLimits.boardMetres] as const;
const heads = [
  "Part",
  "Section or rail",
  "C",
  "V",
  "Class °C",
  "Type",
  "⌀ mm",
  "Height",
  "Pitch",
  "x mm",
  "y mm",
  "Stripe",
  "",
];

const sortKeys: Readonly<Record<string, (row: PlacedCapacitor) => SortKey>> = {
  Part: (row) => row.position.designator,
  "Section or rail": (row) => row.net?.name ?? null,
  C: (row) => row.found?.capacitanceFarads ?? null,
  V: (row) => row.found?.ratedVolts ?? null,
  "Class °C": (row) => row.found?.temperatureClassCelsius ?? null,
  "⌀ mm": (row) => row.found?.diameterMetres ?? null,
  Height: (row) => row.found?.heightMetres ?? null,
  "x mm": (row) => row.position.xMetres,
  "y mm": (row) => row.position.yMetres,
};

const textOf = ({ position, net, found }: PlacedCapacitor) =>
  [
    position.designator,
    net?.name,
    found?.capacitanceFarads == null ? "" : formatMarkedCapacitance(found.capacitanceFarads),
    found?.ratedVolts == null ? "" : `${found.ratedVolts} v`,
    found?.series,
  ]
    .filter(Boolean)
    .join(" ")
    .toLowerCase();

/** The capacitors as a table: one entry row that Enter commits, every stored row editable in place, narrowed and sorted. */
export function CapacitorTable() {
  const { shown: detail } = useJob();
  const [edit, { problem, isLoading }] = useShownBoardEdit();
  const rows = useMemo(() => capacitorsInOrder(detail), [detail]);
  const { shown, filter, setFilter, head } = useListOrder({ rows, sortKeys, textOf });
  return (
    <div className={classes.tableWrap}>
      <table className={`${text.table} ${classes.table}`}>
        <thead>
          <tr>{heads.map(head)}</tr>
        </thead>
        <tbody>
          <EntryRow isLoading={isLoading} onAdd={edit} />
          {shown.map((row) => (
            <StoredRow key={row.position.id} row={row} onEdit={edit} />
          ))}
        </tbody>
      </table>
      {rows.length > 8 && (
        <TextInput
          size="xs"
          className={classes.narrow}
          aria-label="Narrow the capacitors"
          placeholder="narrow the capacitors: 16 v, 1000, c2"
          value={filter}
          onChange={(event) => setFilter(event.currentTarget.value)}
        />
      )}
      <ProblemNote problem={problem} />
    </div>
  );
}

type Edit = (changesFrom: ChangesFrom) => Promise<Problem | undefined>;

function EntryRow({ onAdd, isLoading }: { readonly onAdd: Edit; readonly isLoading: boolean }) {
  const { shown: detail } = useJob();
  const [, select] = useTarget();
  const start = useMemo(
    (): CapacitorDraft => ({ ...emptyDraft, designator: nextCapacitor(detail.positions) }),
    [detail.positions],
  );
  const [draft, setDraft] = useDraft(`${detail.job.id} new capacitor`, start);
  const [invalid, validity] = useInvalidFields();
  const [error, setError] = useState<string>();
  const first = useRef<HTMLInputElement>(null);
  const set = (more: Partial<CapacitorDraft>) => setDraft((now) => ({ ...now, ...more }));
  async function add() {
    if (draft.designator.trim() === "") return setError("A designator is needed.");
    if (invalid.size > 0) return setError("One of the numbers is not understood.");
    const { changes, netId, positionId } = insertion(draft, detail.nets);
    const problem = await onAdd(() => changes);
    if (problem) return setError(problem.errors[0] ? problem.detail : problem.title);
    setError(undefined);
    // What was typed while this one was stored stays.
    setDraft((now) => (JSON.stringify(now) === JSON.stringify(draft) ? nextDraft(draft, netId) : now));
    select({ kind: "part", id: positionId });
    first.current?.focus();
    first.current?.select();
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    void add();
  };
  return (
    <tr className={classes.entry} onKeyDown={onKeyDown}>
      <td>
        <TextInput
          ref={first}
          size="xs"
          aria-label="New part, designator"
          value={draft.designator}
          error={error}
          autoComplete="off"
          onChange={(event) => set({ designator: event.currentTarget.value })}
        />
      </td>
      <Cells prefix="New part" draft={draft} onChange={(more) => set(more)} onValidity={validity} isLive />
      <td>
        <Button size="xs" variant="filled" loading={isLoading} onClick={() => void add()}>
          Add
        </Button>
      </td>
    </tr>
  );
}

function StoredRow({ row, onEdit }: { readonly row: PlacedCapacitor; readonly onEdit: Edit }) {
  const [target, select] = useTarget();
  const remove = useRemovePosition(onEdit);
  const { position, found } = row;
  const draft: CapacitorDraft = {
    designator: position.designator,
    netChoice: position.netId ?? "",
    capacitanceFarads: found?.capacitanceFarads ?? null,
    ratedVolts: found?.ratedVolts ?? null,
    temperatureClassCelsius: found?.temperatureClassCelsius ?? null,
    capacitorClass: found?.capacitorClass ?? null,
    diameterMetres: found?.diameterMetres ?? null,
    heightMetres: found?.heightMetres ?? null,
    pitchMetres: position.pitchMetres,
    xMetres: position.xMetres,
    yMetres: position.yMetres,
    stripeDegrees: found?.stripeDegrees ?? null,
  };

  const changePosition = (values: Partial<PositionValues>) =>
    void onEdit((latest) => positionUpdate(latest, position.id, values));

  function change(more: Partial<CapacitorDraft>) {
    const { netChoice, pitchMetres, xMetres, yMetres } = more;
    if (netChoice !== undefined) {
      void onEdit((latest) => {
        const net = resolveNet(netChoice, latest.nets);
        return [...net.changes, ...(positionUpdate(latest, position.id, { netId: net.id }) ?? [])];
      });
    } else if ("pitchMetres" in more) changePosition({ pitchMetres });
    else if ("xMetres" in more) changePosition({ xMetres });
    else if ("yMetres" in more) changePosition({ yMetres });
    else void onEdit((latest) => foundPartUpdate(latest, position.id, more as Partial<FittedPartValues>));
  }

  return (
    <tr
      data-selected={target?.id === position.id || undefined}
      onFocus={() => select({ kind: "part", id: position.id })}
    >
      <td>
        <CommittedText
          name={`designator ${position.id}`}
          size="xs"
          aria-label={`${position.designator}, designator`}
          value={position.designator}
          classNames={{ input: classes.designator }}
          autoComplete="off"
          onCommit={(text) => {
            const designator = text.trim();
            if (designator !== "" && designator !== position.designator) changePosition({ designator });
          }}
        />
      </td>
      <Cells prefix={position.designator} draft={draft} onChange={change} />
      <td>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label={`Take ${position.designator} off the list`}
          onClick={() => void remove(position)}
        >
          <IconTrash size={16} />
        </ActionIcon>
      </td>
    </tr>
  );
}

interface CellsProps {
  readonly prefix: string;
  readonly draft: CapacitorDraft;
  readonly onChange: (more: Partial<CapacitorDraft>) => void;
  readonly onValidity?: (name: string) => (isValid: boolean) => void;
  /** Report every understood keystroke instead of the finished field. */
  readonly isLive?: boolean;
}

/** The cells between designator and action, the same for the entry row and for stored rows. */
function Cells({ prefix, draft, onChange, onValidity, isLive = false }: CellsProps) {
  const number = (
    name: keyof CapacitorDraft &
      (
        | "capacitanceFarads"
        | "ratedVolts"
        | "temperatureClassCelsius"
        | "diameterMetres"
        | "heightMetres"
        | "pitchMetres"
        | "xMetres"
        | "yMetres"
      ),
    label: string,
    unit: "F" | "V" | "°C" | "mm",
    limits: readonly [number, number],
  ): ReactNode => {
    const report = (value: number | null) => onChange({ [name]: value });
    return (
      <td data-unit={unit}>
        <QuantityInput
          label={`${prefix}, ${label}`}
          isLabelHidden
          isCompact
          size="xs"
          unit={unit}
          defaultPrefix={unit === "F" ? "u" : ""}
          limits={limits}
          value={draft[name]}
          {...(isLive ? { onChange: report } : { onCommit: report })}
          onValidity={onValidity?.(name)}
        />
      </td>
    );
  };
  return (
    <>
      <td>
        <NetSelect
          label={`${prefix}, section or rail`}
          value={draft.netChoice}
          onChange={(netChoice) => onChange({ netChoice })}
        />
      </td>
      {number("capacitanceFarads", "capacitance", "F", [1e-9, 0.1])}
      {number("ratedVolts", "rated voltage", "V", [2, boardLimits.ratedVolts])}
      {number("temperatureClassCelsius", "temperature class", "°C", [40, 200])}
      <td>
        <NativeSelect
          size="xs"
          aria-label={`${prefix}, type`}
          value={draft.capacitorClass ?? ""}
          data={[
            { value: "", label: "?" },
            ...capacitorClasses.map((one) => ({ value: one, label: classLabels[one] })),
          ]}
          onChange={(event) =>
            onChange({ capacitorClass: (event.currentTarget.value || null) as CapacitorDraft["capacitorClass"] })
          }
        />
      </td>
      {number("diameterMetres", "diameter", "mm", length)}
      {number("heightMetres", "height", "mm", length)}
      {number("pitchMetres", "pitch", "mm", [0.0005, 0.05])}
      {number("xMetres", "x", "mm", place)}
      {number("yMetres", "y", "mm", place)}
      <td>
        <NativeSelect
          size="xs"
          aria-label={`${prefix}, stripe points to`}
          value={draft.stripeDegrees === null ? "" : String(draft.stripeDegrees)}
          data={stripeOptions}
          onChange={(event) =>
            onChange({ stripeDegrees: event.currentTarget.value === "" ? null : Number(event.currentTarget.value) })
          }
        />
      </td>
    </>
  );
}

const classLabels = { gp: "general", lowz: "low Z", ultra: "ultra low", polymer: "polymer", hybrid: "hybrid" } as const;

const stripeOptions = [
  { value: "", label: "?" },
  { value: "0", label: "right" },
  { value: "90", label: "bottom" },
  { value: "180", label: "left" },
  { value: "270", label: "top" },
];
