/** When something was logged: the place in the shop's one order, and what is known of the clock that gave its time. */
export interface FactMoment {
  /** Given by the database at storing; null while it waits on a client: then it comes after everything stored. */
  readonly sequence: number | null;
  /** The clock that gave the moment: one page of one browser. null: from before clocks were told apart. */
  readonly clockId: string | null;
  /** The server's own clock at storing; null while it waits on a client. */
  readonly receivedAt: string | null;
  /** By how much that clock ran ahead of the server's; null where nobody knows. */
  readonly clockAheadSeconds: number | null;
}

/** A fact whose moment stands in `at`. */
export interface LoggedFact extends FactMoment {
  readonly at: string;
}

/** As much of a fact as its place in the order needs. */
export type PlacedFact = Pick<LoggedFact, "sequence" | "at">;

/** A moment so far ahead of the server's clock is not believed. */
export const aheadToleranceSeconds = 60;

/** What a fact is that only a client knows so far. */
export const notStored: FactMoment = { sequence: null, clockId: null, receivedAt: null, clockAheadSeconds: null };

/**
 * Facts in the order in which they were stored; what waits on a client comes last, in the order given. No client's clock
 * has a say: one that runs ahead must not make an older fact the latest.
 */
export function inOrder<T extends Pick<FactMoment, "sequence">>(facts: readonly T[]): readonly T[] {
  return [...facts].sort((a, b) =>
    a.sequence === b.sequence ? 0 : (a.sequence ?? Number.POSITIVE_INFINITY) - (b.sequence ?? Number.POSITIVE_INFINITY),
  );
}

/**
 * A fact's moment by the server's clock: its own minus what its clock ran ahead.
 *
 * @returns milliseconds since 1970; null where the difference of the two clocks is not known
 */
export function serverMilliseconds({ at, clockAheadSeconds }: LoggedFact): number | null {
  const own = Date.parse(at);
  return clockAheadSeconds === null || !Number.isFinite(own) ? null : own - clockAheadSeconds * 1000;
}

/**
 * Whether a fact's moment can prove nothing: its clock runs more than a minute ahead of the server's, or it lies later
 * than the server received it.
 */
export function isClockAhead(fact: LoggedFact): boolean {
  if ((fact.clockAheadSeconds ?? 0) > aheadToleranceSeconds) return true;
  if (fact.receivedAt === null) return false;
  const own = serverMilliseconds(fact) ?? Date.parse(fact.at);
  return own - Date.parse(fact.receivedAt) > aheadToleranceSeconds * 1000;
}

/**
 * How long lay between two facts.
 *
 * @returns seconds; null where two clocks gave the moments, or nobody knows which: then no duration is known
 */
export function secondsBetween(earlier: LoggedFact, later: LoggedFact): number | null {
  if (earlier.clockId === null || earlier.clockId !== later.clockId) return null;
  const seconds = (Date.parse(later.at) - Date.parse(earlier.at)) / 1000;
  return Number.isFinite(seconds) ? seconds : null;
}

/**
 * How long ago a fact was, for an observer who knows the server's clock.
 *
 * @param nowMilliseconds by the server's clock
 * @returns seconds; null where the fact's clock is not known, or says that it has not been yet
 */
export function secondsSince(fact: LoggedFact, nowMilliseconds: number): number | null {
  const at = serverMilliseconds(fact);
  if (at === null || isClockAhead(fact)) return null;
  return Math.max(0, (nowMilliseconds - at) / 1000);
}

/** Whether one fact came before another: by the order of storing; of two that wait on this client by its own clock. */
export function isBefore(fact: PlacedFact, other: PlacedFact): boolean {
  if (fact.sequence === null && other.sequence === null) return Date.parse(fact.at) < Date.parse(other.at);
  return (fact.sequence ?? Number.POSITIVE_INFINITY) < (other.sequence ?? Number.POSITIVE_INFINITY);
}
