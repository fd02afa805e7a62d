import { hasBoardRecord, type JobFacts, type ReworkStep } from "@pale-cap/core";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { useSubmit } from "../../outbox/useSubmit";
import type { ReworkRow } from "./reworkRows";

/** Which step must stand before another may be ticked. */
const needs: Readonly<Record<ReworkStep, ReworkStep | null>> = {
  removed: null,
  fitted: "removed",
  polarity_board_mark: "fitted",
  polarity_part_mark: "fitted",
};

/** A tick needs the step before it, a new part a choice, and a polarity the record that it confirms. */
export function isPossible(facts: Pick<JobFacts, "acts">, row: ReworkRow, step: ReworkStep, isDone: boolean): boolean {
  if (!row.steps.includes(step)) return false;
  if (!isDone) return step !== "removed" || !row.done.has("fitted");
  const needed = needs[step];
  if (needed !== null && row.steps.includes(needed) && !row.done.has(needed)) return false;
  if (step === "fitted") return row.replacement !== null;
  if (step === "polarity_board_mark") return hasBoardRecord(facts, row.position);
  return step !== "polarity_part_mark" || row.fitted?.stripeDegrees != null;
}

/** Logs a step of some places; those where it is not possible, or stands already, are left out. */
export function useTick() {
  const { detail, facts } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, result] = useSubmit();
  /** @param seenDegrees where the stripe was seen to point, with its tick: it is seen, never copied */
  const tick = (
    step: ReworkStep,
    rows: readonly ReworkRow[],
    isDone: boolean,
    seenDegrees: number | null = null,
  ): void => {
    const able = rows.filter(
      (row) => row.done.has(step) !== isDone && (seenDegrees !== null || isPossible(facts, row, step, isDone)),
    );
    if (able.length === 0) return;
    const items = able.map(({ position, partInHandId }) => ({
      id: newId(),
      positionId: position.id,
      fittedPartId: step === "fitted" && isDone ? (partInHandId ?? newId()) : null,
      stripeDegrees: seenDegrees,
    }));
    const body = { id: newId(), step, isDone, at: pageClock.moment(), items, personId };
    void submit({ kind: "ticks", jobId: detail.job.id, body });
  };
  return [tick, result] as const;
}
