import { Button, Chip, NativeSelect } from "@mantine/core";
import type { FittedPartValues, Position, PositionValues } from "@pale-cap/contract";
import {
  deviceSigns,
  fixings,
  foundPart,
  latestSigns,
  polarityMarks,
  type SignState,
  type VisualSign,
  visualSigns,
  walkOrder,
} from "@pale-cap/core";
import { fixingLabels, markLabels, signLabels } from "@pale-cap/wording";
import { useMemo } from "react";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { positionUpdate } from "../../job/positionUpdate";
import { useShownBoardEdit } from "../../job/useBoardEdit";
import { useTarget } from "../../job/useTarget";
import { useSubmit } from "../../outbox/useSubmit";
import { CommittedText } from "../../ui/CommittedText";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import { useKeys } from "../../ui/useKeys";
import { foundPartUpdate } from "./capacitorDraft";
import classes from "./inspect.module.css";
import { TypicalSigns } from "./TypicalSigns";

/** What can be seen on the selected part, walked by key, and what is noted of it. */
export function PartLooks({ position }: { readonly position: Position }) {
  const { shown: detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, sent] = useSubmit();
  const [edit, boardEdit] = useShownBoardEdit();
  const isCapacitor = position.kind === "electrolytic";
  const subjectOf = (of: Position) => (isCapacitor ? foundPart(detail.fittedParts, of.id)?.id : of.id);
  const subjectId = subjectOf(position);
  const offered: readonly VisualSign[] = isCapacitor ? visualSigns : deviceSigns;
  const signs = subjectId === undefined ? {} : latestSigns(detail.signs, subjectId);
  const [, select] = useTarget();
  // The walk goes over the board as a hand would, whatever the parts are called; capacitors and other parts apart.
  const walk = useMemo(() => {
    const alike = detail.positions.filter((one) => (one.kind === "electrolytic") === isCapacitor);
    return walkOrder(alike).flatMap((id) => alike.find((one) => one.id === id) ?? []);
  }, [detail.positions, isCapacitor]);
  const unlooked = walk.filter((one) => {
    const subject = subjectOf(one);
    return subject && !detail.signs.some((sign) => sign.fittedPartId === subject || sign.positionId === subject);
  });
  /** On to the next part of the walk that nobody looked at. */
  function goOn() {
    const from = walk.findIndex((one) => one.id === position.id);
    const next = [...walk.slice(from + 1), ...walk.slice(0, from)].find((one) => unlooked.includes(one));
    if (next) select({ kind: "part", id: next.id });
  }
  const unsaid = offered.filter((sign) => signs[sign] === undefined || signs[sign] === "not_looked");
  useKeys("Looking", [
    ...offered.map((sign, index) => ({
      key: String((index + 1) % 10),
      label: signLabels[sign],
      action: () => log([[sign, signs[sign] === "seen" ? "not_seen" : "seen"]]),
    })),
    {
      key: "n",
      label: "nothing more seen, next part",
      action: () => {
        if (unsaid.length > 0) log(unsaid.map((sign) => [sign, "not_seen"]));
        goOn();
      },
    },
    {
      key: "k",
      label: "not looked, next part",
      action: () => {
        if (unsaid.length > 0) log(unsaid.map((sign) => [sign, "not_looked"]));
        goOn();
      },
    },
    { key: "w", label: "next part that nobody looked at", action: goOn },
  ]);
  const isClean = offered.every((sign) => signs[sign] === "not_seen");

  function log(states: readonly (readonly [VisualSign, SignState])[]) {
    if (subjectId === undefined) return;
    const observations = states.map(([sign, state]) => ({ id: newId(), sign, state }));
    const subject = isCapacitor
      ? { fittedPartId: subjectId, positionId: null }
      : { fittedPartId: null, positionId: subjectId };
    const body = { id: newId(), ...subject, observations, observedAt: pageClock.moment(), personId };
    void submit({ kind: "signs", jobId: detail.job.id, body });
  }

  return (
    <Part title="What can be seen" aside={<span className={text.soft}>a clean look never clears a part</span>}>
      {subjectId !== undefined && (
        <>
          <div className={classes.signs}>
            {offered.map((sign, index) => (
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
            <Button size="xs" disabled={isClean} onClick={() => log(offered.map((sign) => [sign, "not_seen"]))}>
              {isClean ? "looked, nothing seen" : "Nothing seen"}
            </Button>
          </div>
          <div className={classes.walk}>
            <span className={text.soft}>
              {unlooked.length === 0
                ? "every part looked at"
                : `${unlooked.length} ${isCapacitor ? "" : "other parts "}not looked at yet`}
              ; <kbd>n</kbd> nothing more, next · <kbd>k</kbd> not looked, next · <kbd>w</kbd> next open one
            </span>
          </div>
        </>
      )}
      <TypicalSigns kind={position.kind} />
      <ProblemNote problem={sent.problem ?? boardEdit.problem} />
      {isCapacitor && <CapacitorFields position={position} />}
      <CommittedText
        name={`note ${position.id}`}
        label={`Note on ${position.designator}`}
        placeholder="what a number does not say"
        maxLength={200}
        value={position.note ?? ""}
        onCommit={(typed) => {
          const note = typed.trim() || null;
          if (note !== (position.note ?? null)) void edit((latest) => positionUpdate(latest, position.id, { note }));
        }}
      />
    </Part>
  );
}

/** What only a capacitor has: how its place is marked and held, and what its print says. */
function CapacitorFields({ position }: { readonly position: Position }) {
  const { shown: detail } = useJob();
  const [edit, { problem }] = useShownBoardEdit();
  const positionId = position.id;
  const part = foundPart(detail.fittedParts, positionId);
  const change = (values: Partial<PositionValues>) => void edit((latest) => positionUpdate(latest, positionId, values));
  const changePart = (values: Partial<FittedPartValues>) =>
    void edit((latest) => foundPartUpdate(latest, positionId, values));
  if (!part) return null;
  return (
    <>
      <ProblemNote problem={problem} />
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
    </>
  );
}
