import { aheadToleranceSeconds } from "@pale-cap/core";
import { newId } from "./newId";

/** Where this page's time comes from: tests give their own. */
export interface TimeSource {
  /** The computer's clock, which somebody may set. */
  readonly wall: () => number;
  /** Milliseconds that only ever go forward. */
  readonly monotonic: () => number;
}

/** A clock whose difference to the server moves by more than this is another clock from then on. */
const jumpMilliseconds = 5000;

/**
 * The clock of this page. It starts at the computer's time and goes on by the browser's monotonic clock, so that setting
 * the computer's clock moves no moment and no duration. How it stands to the server's clock is learned with every answer;
 * where that jumps (a sleep, a frozen page), a new clock begins and no duration reaches from one to the other.
 */
export function createPageClock(source: TimeSource) {
  const begin = () => ({ id: newId(), wall: source.wall(), monotonic: source.monotonic() });
  let started = begin();
  let aheadMilliseconds: number | null = null;
  const listeners = new Set<() => void>();
  const now = () => started.wall + source.monotonic() - started.monotonic;
  const isFarAhead = () => Math.abs(aheadMilliseconds ?? 0) > aheadToleranceSeconds * 1000;

  return {
    get id(): string {
      return started.id;
    },
    now,
    /** A moment as facts carry it. */
    moment: (): string => new Date(now()).toISOString(),
    /** The server's clock as far as it is known here; this page's own until the first answer. */
    serverNow: (): number => now() - (aheadMilliseconds ?? 0),
    /** Of this page's clock; null before the first answer, and for any other clock. */
    aheadSecondsOf: (clockId: string | null): number | null =>
      clockId === started.id && aheadMilliseconds !== null ? aheadMilliseconds / 1000 : null,
    /** Seconds ahead of the server where it is more than a minute either way; null while it does not matter. */
    disagreementSeconds: (): number | null => (isFarAhead() ? (aheadMilliseconds as number) / 1000 : null),
    /** An answer came: between sending and receiving the server's clock showed this. */
    heard(sentAt: number, serverNow: number): void {
      const received = now();
      const ahead = (sentAt + received) / 2 - serverNow;
      // A slow answer tells little: the truth lies anywhere between sending and receiving.
      const doubt = (received - sentAt) / 2;
      const before = aheadMilliseconds;
      if (before !== null && Math.abs(ahead - before) > jumpMilliseconds + doubt) {
        started = begin();
        aheadMilliseconds = source.wall() - serverNow - doubt;
      } else if (before === null || doubt < jumpMilliseconds) aheadMilliseconds = ahead;
      for (const listener of listeners) listener();
    },
    subscribe(listener: () => void): () => void {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
  };
}

export const pageClock = createPageClock({ wall: () => Date.now(), monotonic: () => performance.now() });
