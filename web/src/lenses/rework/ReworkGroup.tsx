import { Button, Checkbox, NativeSelect } from "@mantine/core";
import type { Problem } from "@pale-cap/contract";
import { doPolaritiesAgree, hasBoardRecord, type ReworkStep, reworkSteps } from "@pale-cap/core";
import { directionWord, markLabels, partKindLabels } from "@pale-cap/wording";
import { useState } from "react";
import { stripePath } from "../../drawing/boardGeometry";
import { useJob } from "../../job/JobContext";
import { positionUpdate } from "../../job/positionUpdate";
import { useBoardEdit } from "../../job/useBoardEdit";
import { useLogAct } from "../../job/useLogAct";
import { usePlanEdit } from "../../job/usePlanEdit";
import { useTarget } from "../../job/useTarget";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { WordLine } from "../../ui/WordLine";
import classes from "./rework.module.css";
import type { ReworkRow, ReworkRows } from "./reworkRows";
import { isPossible, useTick } from "./useTick";

const headings: Readonly<Record<ReworkStep, string>> = {
  removed: "Old part out",
  fitted: "New part in",
  polarity_board_mark: "Polarity by the board's mark",
  polarity_part_mark: "Polarity by the part's stripe",
};

/** One value: its places, and the four steps, each tickable for the whole group or for one place. */
export function ReworkGroup({ group, isOneAtATime }: { readonly group: ReworkRows; readonly isOneAtATime: boolean }) {
  const { facts } = useJob();
  const [tick, { problem }] = useTick();
  const { replacement, rows } = group;
  const steps = reworkSteps.filter((step) => rows.some((row) => row.steps.includes(step)));
  const name = replacement?.name ?? "places without a choice";

  return (
    <Part
      title={replacement?.name ?? "Nothing chosen yet"}
      aside={
        replacement ? (
          <span className={classes.value}>
            <Quantity value={replacement.capacitanceFarads} unit="F" isMarking />{" "}
            <Quantity value={replacement.ratedVolts} unit="V" />{" "}
            <Quantity value={replacement.temperatureClassCelsius} unit="°C" />
          </span>
        ) : (
          <span className={text.soft}>taking out needs no choice; what goes in is chosen in Choose</span>
        )
      }
    >
      <ProblemNote problem={problem} />
      <table className={`${text.table} ${text.ruled} ${classes.table}`}>
        <thead>
          <tr>
            <th scope="col">Place</th>
            <th scope="col">Comes out</th>
            {steps.map((step) => {
              const isAll = rows.every((row) => row.done.has(step) || !row.steps.includes(step));
              return (
                <th key={step} scope="col">
                  <Checkbox
                    size="sm"
                    label={headings[step]}
                    aria-label={`${headings[step]}, all of ${name}`}
                    checked={isAll}
                    indeterminate={!isAll && rows.some((row) => row.done.has(step))}
                    disabled={
                      (isOneAtATime && step === "removed" && !isAll && rows.length > 1) ||
                      !rows.some((row) => row.done.has(step) || isPossible(facts, row, step, true))
                    }
                    onChange={() => tick(step, rows, !isAll)}
                  />
                  {step === "polarity_part_mark" && rows.length > 1 && (
                    <StripeSeen
                      label={`Stripe seen, all of ${name}`}
                      isDisabled={!rows.some((row) => row.done.has("fitted") && !row.done.has(step))}
                      onSeen={(degrees) =>
                        tick(
                          step,
                          rows.filter((row) => row.done.has("fitted")),
                          true,
                          degrees,
                        )
                      }
                    />
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <Row
              key={row.position.id}
              row={row}
              steps={steps}
              isHeldBack={
                isOneAtATime && rows.some((one) => one !== row && one.done.has("removed") && !one.done.has("fitted"))
              }
              onTick={(step, isDone) => tick(step, [row], isDone)}
              onStripeSeen={(degrees) => tick("polarity_part_mark", [row], true, degrees)}
            />
          ))}
        </tbody>
      </table>
    </Part>
  );
}

const directions = [0, 90, 180, 270] as const;

/** Where the stripe of a part that stands there points, as it is seen: picking it is the tick. */
function StripeSeen(props: {
  readonly label: string;
  readonly isDisabled: boolean;
  readonly onSeen: (degrees: number) => void;
}) {
  return (
    <NativeSelect
      size="xs"
      aria-label={props.label}
      disabled={props.isDisabled}
      value=""
      data={[
        { value: "", label: "stripe seen …" },
        ...directions.map((degrees) => ({ value: String(degrees), label: directionWord(degrees) })),
      ]}
      onChange={(event) => event.currentTarget.value !== "" && props.onSeen(Number(event.currentTarget.value))}
    />
  );
}

/** The board's side of a polarity where it was not noted: its mark, or what stands for it where it has none. */
function BoardRecord({ row }: { readonly row: ReworkRow }) {
  const { facts } = useJob();
  const [edit, { problem }] = useBoardEdit();
  const [act, acted] = useLogAct();
  const { position } = row;
  if (hasBoardRecord(facts, position)) return null;
  return (
    <>
      <NativeSelect
        size="xs"
        aria-label={`${position.designator}: the board's mark puts the negative side`}
        value=""
        data={[
          { value: "", label: "board's mark …" },
          ...directions.map((degrees) => ({ value: String(degrees), label: `negative ${directionWord(degrees)}` })),
          { value: "photo", label: "no mark: by a photo" },
          { value: "continuity", label: "no mark: pad leads to minus" },
        ]}
        onChange={(event) => {
          const { value } = event.currentTarget;
          if (value === "photo" || value === "continuity") {
            void act({ kind: "polarity_seen", subjectId: position.id, word: value });
          } else if (value !== "") {
            void edit((latest) => positionUpdate(latest, position.id, { boardNegativeDegrees: Number(value) }));
          }
        }}
      />
      <ProblemNote problem={problem ?? acted.problem} />
    </>
  );
}

function Row(props: {
  readonly row: ReworkRow;
  readonly steps: readonly ReworkStep[];
  /** Another place of the value is empty now, and the house rule takes one out at a time. */
  readonly isHeldBack: boolean;
  readonly onTick: (step: ReworkStep, isDone: boolean) => void;
  readonly onStripeSeen: (degrees: number) => void;
}) {
  const { row } = props;
  const { facts } = useJob();
  const { position, found, fitted } = row;
  const [target, select] = useTarget();
  const agree = fitted ? doPolaritiesAgree(position.boardNegativeDegrees, fitted.stripeDegrees) : null;
  const seen = facts.acts.find((act) => act.kind === "polarity_seen" && act.subjectId === position.id);
  const details: Readonly<Record<ReworkStep, string>> = {
    removed: "",
    fitted: "",
    polarity_board_mark:
      position.boardNegativeDegrees === null
        ? seen
          ? `no mark, by ${seen.word === "photo" ? "a photo" : "continuity"}`
          : "mark not noted"
        : `${position.polarityMark && position.polarityMark !== "none" ? `${markLabels[position.polarityMark]}, ` : ""}negative ${directionWord(position.boardNegativeDegrees)}`,
    polarity_part_mark: fitted?.stripeDegrees == null ? "" : `stripe ${directionWord(fitted.stripeDegrees)}`,
  };
  return (
    <tr data-selected={target?.id === position.id || undefined}>
      <td>
        <button type="button" className={classes.place} onClick={() => select({ kind: "part", id: position.id })}>
          {position.kind === "electrolytic" && (
            <MarkSketch degrees={position.boardNegativeDegrees ?? found?.stripeDegrees ?? null} />
          )}
          {position.designator}
        </button>
        <div className={text.soft}>{row.net?.name}</div>
      </td>
      <td>
        {position.kind !== "electrolytic" ? (
          partKindLabels[position.kind]
        ) : found ? (
          <>
            <Quantity value={found.capacitanceFarads} unit="F" isMarking />{" "}
            <Quantity value={found.ratedVolts} unit="V" />
          </>
        ) : (
          <span className={text.soft}>nothing was there</span>
        )}
        {position.kind !== "electrolytic" && row.replacement === null && <WhatGoesIn positionId={position.id} />}
      </td>
      {props.steps.map((step) => (
        <td key={step}>
          {!row.steps.includes(step) && <span className={text.soft}>–</span>}
          {row.steps.includes(step) && (
            <Checkbox
              size="md"
              aria-label={`${position.designator}: ${headings[step]}`}
              checked={row.done.has(step)}
              disabled={
                (step === "removed" && !row.done.has(step) && props.isHeldBack) ||
                !isPossible(facts, row, step, !row.done.has(step))
              }
              onChange={(event) => props.onTick(step, event.currentTarget.checked)}
            />
          )}
          <div className={text.soft}>{row.steps.includes(step) && details[step]}</div>
          {step === "polarity_board_mark" && row.steps.includes(step) && <BoardRecord row={row} />}
          {step === "polarity_part_mark" && row.done.has("fitted") && !row.done.has(step) && (
            <StripeSeen label={`${position.designator}: stripe seen`} isDisabled={false} onSeen={props.onStripeSeen} />
          )}
          {step === "polarity_part_mark" && agree === false && (
            <div className={classes.conflict}>does not agree with the board's mark</div>
          )}
        </td>
      ))}
    </tr>
  );
}

/** What goes in where no list has it, in words; one key for the same type. */
function WhatGoesIn({ positionId }: { readonly positionId: string }) {
  const { edit } = usePlanEdit();
  const { detail } = useJob();
  const [words, setWords, dropWords] = useDraft(`${detail.job.id} goes in ${positionId}`, "");
  const [problem, setProblem] = useState<Problem>();
  const take = async (otherPart: string) => {
    const refusal = await edit(positionId, () => ({ otherPart }));
    setProblem(refusal);
    if (!refusal) dropWords(words);
  };
  return (
    <WordLine
      label="What goes in"
      placeholder="type, or say where it is from"
      maxLength={80}
      value={words}
      onChange={setWords}
      button="Goes in"
      onTake={(otherPart) => void take(otherPart)}
    >
      <Button size="compact-sm" onClick={() => void take("the same type")}>
        The same type
      </Button>
      <Button size="compact-sm" onClick={() => void edit(positionId, () => ({ isLeftEmpty: true })).then(setProblem)}>
        Nothing goes in
      </Button>
      <ProblemNote problem={problem} />
    </WordLine>
  );
}

/** The can from above with its stripe, as it should lie. */
function MarkSketch({ degrees }: { readonly degrees: number | null }) {
  return (
    <svg viewBox="-11 -11 22 22" width="24" height="24" aria-hidden="true">
      <circle r="9.5" fill="var(--sleeve)" stroke="var(--can-edge)" strokeWidth="1.2" />
      {degrees !== null && <path d={stripePath(9.5, degrees)} fill="var(--stripe)" />}
    </svg>
  );
}
