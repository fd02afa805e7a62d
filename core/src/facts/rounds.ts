import type { FittedPart } from "../board/board";
import { inOrder, isBefore, type PlacedFact } from "../readings/factMoment";
import { isInCircuit, loggedReading, type Reading } from "../readings/reading";
import { type CaptureFact, loggedCapture } from "./captures";
import type { JobAct } from "./jobActs";
import type { ReplacementPlan, ReworkTick } from "./jobFacts";
import { isChange, lastAct, standingPart } from "./reworkTicks";

/** What a round is told from; a job's facts and the whole job as it travels both have it. */
export interface RoundsOfJob {
  readonly positions: readonly { readonly id: string; readonly netId: string | null }[];
  readonly fittedParts: readonly FittedPart[];
  readonly readings: readonly Reading[];
  readonly captures: readonly CaptureFact[];
  readonly plans: readonly ReplacementPlan[];
  readonly ticks: readonly ReworkTick[];
  readonly acts: readonly JobAct[];
}

/** What began each round after the first: the unit was powered, and it is still faulty. One taken back began none. */
function roundStarts(acts: readonly JobAct[]): readonly JobAct[] {
  const starts: JobAct[] = [];
  for (const act of inOrder(acts)) {
    if (act.kind !== "still_faulty") continue;
    if (act.word === "taken_back") starts.pop();
    else starts.push(act);
  }
  return starts;
}

/** The round that a job is in; 1 until it came back as still faulty. */
export const roundNumber = (acts: readonly JobAct[]): number => roundStarts(acts).length + 1;

/** What began the current round; null in the first. */
export const roundStart = (acts: readonly JobAct[]): JobAct | null => roundStarts(acts).at(-1) ?? null;

/**
 * A job as one of its rounds sees it. What stood on the board when the round began is what was found; plans and ticks are
 * the round's own. Readings of a part stay with it; those of a bank that was worked on, and all under power from before the last
 * work of the round before, are of another unit. A round that is over ends where the next began.
 *
 * @param number from 1; the current one unless said otherwise
 */
export function roundView<T extends RoundsOfJob>(job: T, number: number = roundNumber(job.acts)): T {
  const starts = roundStarts(job.acts);
  if (starts.length === 0) return job;
  const start = starts[number - 2] ?? null;
  const end = starts[number - 1] ?? null;
  const isIn = (fact: PlacedFact) => end === null || isBefore(fact, end);
  const isOwn = (fact: PlacedFact) => isIn(fact) && (start === null || !isBefore(fact, start));
  const before = start === null ? [] : job.ticks.filter((tick) => isBefore(tick, start));
  return {
    ...job,
    fittedParts: partsOfRound(job, start, end),
    readings: readingsSince(job, before).filter((reading) => isIn(loggedReading(reading))),
    captures: job.captures.filter((one) => isIn(loggedCapture(one)) && isAfter(loggedCapture(one), lastAct(before))),
    plans: job.plans.filter((plan) => (plan.round ?? 1) === number),
    ticks: job.ticks.filter(isOwn),
    acts: job.acts.filter(isIn),
  };
}

const isAfter = (fact: PlacedFact, act: PlacedFact | null) => act === null || !isBefore(fact, act);

function partsOfRound(job: RoundsOfJob, start: PlacedFact | null, end: PlacedFact | null): readonly FittedPart[] {
  const { fittedParts, ticks } = job;
  const at = (positionId: string, moment: PlacedFact) => standingPart(fittedParts, ticks, positionId, moment);
  return fittedParts.flatMap((part): readonly FittedPart[] => {
    const first = start === null ? part.origin === "found" : at(part.positionId, start)?.id === part.id;
    const putIn = ticks.find((tick) => tick.step === "fitted" && tick.isDone && tick.fittedPartId === part.id);
    // What went in before the round began and did not stand there then, or only after it, is none of it.
    if (!first && putIn && start !== null && isBefore(putIn, start)) return [];
    if (!first && putIn && end !== null && !isBefore(putIn, end)) return [];
    if (!first && !putIn && part.origin === "found") return [];
    const isStanding = end !== null && at(part.positionId, end)?.id === part.id;
    return [{ ...part, origin: first ? "found" : "replacement", removedAt: isStanding ? null : part.removedAt }];
  });
}

/** The readings that still say something after the work of the rounds before. */
function readingsSince(job: RoundsOfJob, before: readonly ReworkTick[]): readonly Reading[] {
  if (before.length === 0) return job.readings;
  const last = lastAct(before);
  const touched = new Map<string, PlacedFact>();
  const fits = new Map<string, PlacedFact>();
  for (const tick of inOrder(before)) {
    const netId = job.positions.find((one) => one.id === tick.positionId)?.netId;
    if (netId && isChange(tick)) touched.set(netId, tick);
    if (tick.step === "fitted" && tick.isDone) fits.set(tick.positionId, tick);
  }
  const netOf = ({ targetKind, targetId }: Reading) =>
    targetKind === "part" ? job.positions.find((one) => one.id === targetId)?.netId : targetId;
  return job.readings.filter((reading) => {
    const moment = loggedReading(reading);
    if (reading.isPowered || reading.targetKind === "unit") return isAfter(moment, last);
    // Of a part that has no row of its own, what was read before a new one went in is the old one's.
    const fit = reading.fittedPartId === null && reading.targetKind === "part" ? fits.get(reading.targetId) : undefined;
    if (fit && !isAfter(moment, fit)) return false;
    const isOfBank = reading.targetKind !== "part" || isInCircuit(reading);
    return !isOfBank || isAfter(moment, touched.get(netOf(reading) ?? "") ?? null);
  });
}

/**
 * What speaks of the fault that a round was about: everything up to its first new part, and afterwards only what was read of
 * the removed parts off the board. What proves the repair is no evidence of what was wrong.
 *
 * @param round as `roundView` gives it
 */
export function faultFacts<T extends RoundsOfJob>(round: T): T {
  const first = inOrder(round.ticks.filter((tick) => tick.step === "fitted" && tick.isDone))[0];
  if (!first) return round;
  const old = new Set(round.fittedParts.filter((part) => part.origin === "found").map((part) => part.id));
  const readings = round.readings.filter(
    (one) =>
      isBefore(loggedReading(one), first) ||
      (one.circuitState === "out" && one.fittedPartId !== null && old.has(one.fittedPartId)),
  );
  return { ...round, readings, captures: round.captures.filter((one) => isBefore(loggedCapture(one), first)) };
}
