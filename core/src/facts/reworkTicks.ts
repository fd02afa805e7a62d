import type { PartKind } from "../board/board";
import { inOrder, isBefore, type PlacedFact } from "../readings/factMoment";
import { type ReworkStep, type ReworkTick, reworkSteps } from "./jobFacts";

/**
 * Which steps of a position stand as done: the tick that was stored last decides. Taking out again what had been fitted
 * there begins anew; taking that back brings the steps before it back.
 */
export function doneSteps(ticks: readonly ReworkTick[], positionId: string): ReadonlySet<ReworkStep> {
  let done = new Set<ReworkStep>();
  const earlier: Set<ReworkStep>[] = [];
  for (const tick of inOrder(ticks)) {
    if (tick.positionId !== positionId) continue;
    const isAgain = tick.step === "removed" && tick.isDone && done.has("fitted");
    if (isAgain) {
      earlier.push(done);
      done = new Set(["removed"]);
    } else if (tick.isDone) done.add(tick.step);
    else if (tick.step === "removed" && earlier.length > 0) done = earlier.pop() ?? done;
    else done.delete(tick.step);
  }
  return done;
}

/** The steps that a place asks for: polarity is a capacitor's. What a plan leaves empty only has to come out. */
export function stepsOf(kind: PartKind, isLeftEmpty = false): readonly ReworkStep[] {
  if (isLeftEmpty) return ["removed"];
  return kind === "electrolytic" ? reworkSteps : ["removed", "fitted"];
}

/** The last tick that changed what is in the unit: something came out or went in, or that was taken back. */
export function lastAct(ticks: readonly ReworkTick[]): ReworkTick | null {
  return inOrder(ticks.filter(isChange)).at(-1) ?? null;
}

/** Whether a tick changes what stands on the board. */
export const isChange = ({ step }: ReworkTick): boolean => step === "removed" || step === "fitted";

interface PlacedPart {
  readonly id: string;
  readonly positionId: string;
  readonly origin: "found" | "replacement";
}

/**
 * What stood at a place, by its ticks in their order: first what was found there, then what went out and in.
 *
 * @param before only what was stored before it counts; null: all of it
 * @returns null where the place was empty
 */
export function standingPart<T extends PlacedPart>(
  parts: readonly T[],
  ticks: readonly ReworkTick[],
  positionId: string,
  before: PlacedFact | null = null,
): T | null {
  return placeAfter(parts, ticks, positionId, before).standing;
}

/** What came out of a place last and lies beside it; undefined while something stands there. */
export function partBeside<T extends PlacedPart>(
  parts: readonly T[],
  ticks: readonly ReworkTick[],
  positionId: string,
): T | undefined {
  const { standing, beside } = placeAfter(parts, ticks, positionId, null);
  return standing === null ? beside.at(-1) : undefined;
}

interface Place<T> {
  standing: T | null;
  /** What was taken out, the last one last; putting back takes it from here. */
  readonly beside: T[];
}

function placeAfter<T extends PlacedPart>(
  parts: readonly T[],
  ticks: readonly ReworkTick[],
  positionId: string,
  before: PlacedFact | null,
): Place<T> {
  const own = parts.filter((part) => part.positionId === positionId);
  const place: Place<T> = { standing: own.find((part) => part.origin === "found") ?? null, beside: [] };
  for (const tick of inOrder(ticks)) {
    if (tick.positionId !== positionId || !isChange(tick)) continue;
    if (before !== null && !isBefore(tick, before)) continue;
    if (tick.step === "fitted") place.standing = tick.isDone ? fittedBy(own, tick) : null;
    else if (!tick.isDone) place.standing = place.beside.pop() ?? place.standing;
    else if (place.standing !== null) {
      place.beside.push(place.standing);
      place.standing = null;
    }
  }
  return place;
}

/** The part that a tick put in; ticks from before parts were named in them mean the only new one. */
function fittedBy<T extends PlacedPart>(own: readonly T[], { fittedPartId }: ReworkTick): T | null {
  const named = own.find((part) => part.id === fittedPartId);
  return named ?? (fittedPartId == null ? own.find((part) => part.origin === "replacement") : undefined) ?? null;
}
