import { Button, Chip, NativeSelect } from "@mantine/core";
import type { FittedPartValues, PositionValues } from "@pale-cap/contract";
import {
  fixings,
  foundPart,
  latestSigns,
  polarityMarks,
  type SignState,
  type VisualSign,
  visualSigns,
  walkOrder,
} from "@pale-cap/core";
import { cautions, fixingLabels, markLabels, signLabels } from "@pale-cap/wording";
import { type ReactNode, useMemo } from "react";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { RailNetworks } from "../../job/panels/rails/RailNetworks";
import { RailTable } from "../../job/panels/rails/RailTable";
import { positionUpdate } from "../../job/positionUpdate";
import { useBoardEdit } from "../../job/useBoardEdit";
import { useSelectedPosition, useTarget } from "../../job/useTarget";
import { useSubmit } from "../../outbox/useSubmit";
import { Caution } from "../../ui/Caution";
import { CommittedText } from "../../ui/CommittedText";
import { Pane, Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import { useKeys } from "../../ui/useKeys";
import { BoardForm } from "./BoardForm";
import { BoardTypeCard } from "./BoardTypeCard";
import { useBoardTypeOfJobQuery } from "./boardTypeApi";
import { foundPartUpdate } from "./capacitorDraft";
import classes from "./inspect.module.css";
import { PapersCard } from "./PapersCard";
import { PositionsFile } from "./PositionsFile";

/** The selected part's signs and polarity mark; under it the rails and the board. */
export function InspectPane({ tools }: { readonly tools: ReactNode }) {
  const position = useSelectedPosition();
  const { charge, detail } = useJob();
  return (
    <Pane
      title={position ? <span className={classes.big}>{position.designator}</span> : "Inspect"}
      second={
        <>
          <BoardForm />
          <BoardTypeCard />
          <BoardTypePapersCard />
          <PositionsFile />
        </>
      }
    >
      {charge.name !== "verified" && detail.energyStores.length > 0 && <Caution>{cautions.chargeUnknown}</Caution>}
      {tools}
      {position ? (
        <Signs key={position.id} positionId={position.id} />
      ) : (
        <p className={text.soft}>
          Type the first capacitor into the table below; Enter adds it. On the board: drag to move, arrows to nudge, r
          to turn, Shift and click to mark several.
        </p>
      )}
      <RailTable title="Rails" />
      <RailNetworks />
    </Pane>
  );
}

/** Papers belong to the kind of board: they appear once this board is of one. */
function BoardTypePapersCard() {
  const { data: own } = useBoardTypeOfJobQuery(useJob().detail.job.id);
  return own ? <PapersCard boardTypeId={own.boardTypeId} /> : null;
}

function Signs({ positionId }: { readonly positionId: string }) {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, sent] = useSubmit();
  const [edit, boardEdit] = useBoardEdit();
  const position = detail.positions.find((one) => one.id === positionId);
  const part = foundPart(detail.fittedParts, positionId);
  const signs = part ? latestSigns(detail.signs, part.id) : {};
  const [, select] = useTarget();
  // The walk goes over the board as a hand would, whatever the parts are called.
  const walk = useMemo(
    () => walkOrder(detail.positions.filter((one) => one.kind === "electrolytic")),
    [detail.positions],
  );
  const unlooked = walk.filter((id) => {
    const found = foundPart(detail.fittedParts, id);
    return found && !detail.signs.some((sign) => sign.fittedPartId === found.id);
  });
  /** On to the next part of the walk, past those that were looked at where `isOpenOnly`. */
  function goOn(isOpenOnly: boolean) {
    const from = walk.indexOf(positionId);
    const order = [...walk.slice(from + 1), ...walk.slice(0, from)];
    const next = order.find((id) => !isOpenOnly || unlooked.includes(id));
    if (next) select({ kind: "part", id: next });
  }
  const unsaid = visualSigns.filter((sign) => signs[sign] === undefined || signs[sign] === "not_looked");
  useKeys("Looking", [
    ...visualSigns.map((sign, index) => ({
      key: String((index + 1) % 10),
      label: signLabels[sign],
      action: () => log([[sign, signs[sign] === "seen" ? "not_seen" : "seen"]]),
    })),
    {
      key: "n",
      label: "nothing more seen, next part",
      action: () => {
        if (unsaid.length > 0) log(unsaid.map((sign) => [sign, "not_seen"]));
        goOn(true);
      },
    },
    {
      key: "k",
      label: "not looked, next part",
      action: () => {
        if (unsaid.length > 0) log(unsaid.map((sign) => [sign, "not_looked"]));
        goOn(true);
      },
    },
    { key: "w", label: "next part that nobody looked at", action: () => goOn(true) },
  ]);
  const isClean = visualSigns.every((sign) => signs[sign] === "not_seen");

  function log(states: readonly (readonly [VisualSign, SignState])[]) {
    if (!part) return;
    const observations = states.map(([sign, state]) => ({ id: newId(), sign, state }));
    const body = { id: newId(), fittedPartId: part.id, observations, observedAt: pageClock.moment(), personId };
    void submit({ kind: "signs", jobId: detail.job.id, body });
  }

  if (!part || !position) return null;
  return (
    <Part title="What can be seen" aside={<span className={text.soft}>a clean look never clears a part</span>}>
      <div className={classes.signs}>
        {visualSigns.map((sign, index) => (
          <Chip
            key={sign}
            size="sm"
            radius={3}
            variant="outline"
            checked={signs[sign] === "seen"}
            onChange={(checked) => log([[sign, checked ? "seen" : "not_seen"]])}
          >
            {signLabels[sign]} <kbd className={classes.key}>{(index + 1) % 10}</kbd>
          </Chip>
        ))}
        <Button size="xs" disabled={isClean} onClick={() => log(visualSigns.map((sign) => [sign, "not_seen"]))}>
          {isClean ? "looked, nothing seen" : "Nothing seen"}
        </Button>
      </div>
      <div className={classes.walk}>
        <span className={text.soft}>
          {unlooked.length === 0 ? "every part looked at" : `${unlooked.length} not looked at yet`}; <kbd>n</kbd>{" "}
          nothing more, next · <kbd>k</kbd> not looked, next · <kbd>w</kbd> next open one
        </span>
      </div>
      <ProblemNote problem={sent.problem ?? boardEdit.problem} />
      <div className={classes.pair}>
        <NativeSelect
          label="Board's polarity mark"
          value={position.polarityMark ?? ""}
          data={[
            { value: "", label: "not noted" },
            ...polarityMarks.map((mark) => ({ value: mark, label: markLabels[mark] })),
          ]}
          onChange={(event) =>
            change({ polarityMark: (event.currentTarget.value || null) as typeof position.polarityMark })
          }
        />
        <NativeSelect
          label="It puts the negative side"
          value={position.boardNegativeDegrees === null ? "" : String(position.boardNegativeDegrees)}
          data={[
            { value: "", label: "not noted" },
            { value: "0", label: "right" },
            { value: "90", label: "bottom" },
            { value: "180", label: "left" },
            { value: "270", label: "top" },
          ]}
          onChange={(event) =>
            change({
              boardNegativeDegrees: event.currentTarget.value === "" ? null : Number(event.currentTarget.value),
            })
          }
        />
        <NativeSelect
          label="Held"
          value={position.fixing ?? ""}
          data={[
            { value: "", label: "not noted" },
            ...fixings.map((one) => ({ value: one, label: fixingLabels[one] })),
          ]}
          onChange={(event) => change({ fixing: (event.currentTarget.value || null) as typeof position.fixing })}
        />
        <CommittedText
          name={`series ${part.id}`}
          label="Series"
          maxLength={40}
          value={part.series ?? ""}
          onCommit={(text) => {
            const series = text.trim() || null;
            if (series !== part.series) changePart({ series });
          }}
        />
        <QuantityInput
          label="Tolerance"
          unit="%"
          limits={[0.01, 1]}
          placeholder="20"
          value={part.toleranceRatio}
          onCommit={(toleranceRatio) => changePart({ toleranceRatio })}
        />
        <QuantityInput
          label="ESR in its sheet"
          unit="Ω"
          limits={[1e-4, 1000]}
          placeholder="at 100 kHz, 20 °C"
          value={part.datasheetEsrOhms}
          onCommit={(datasheetEsrOhms) => changePart({ datasheetEsrOhms })}
        />
        <CommittedText
          name={`heat ${positionId}`}
          label="Warmed by"
          placeholder="D7 sink, L3"
          maxLength={40}
          value={position.heatSource ?? ""}
          onCommit={(text) => {
            const heatSource = text.trim() || null;
            if (heatSource !== position.heatSource) change({ heatSource });
          }}
        />
      </div>
    </Part>
  );

  function change(values: Partial<PositionValues>) {
    void edit((latest) => positionUpdate(latest, positionId, values));
  }

  function changePart(values: Partial<FittedPartValues>) {
    void edit((latest) => foundPartUpdate(latest, positionId, values));
  }
}
