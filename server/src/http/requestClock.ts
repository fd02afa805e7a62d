import { clockHeaders } from "@pale-cap/contract";
import type { Request } from "express";
import type { Database } from "../database/database";
import { noCaller, type RequestClock } from "../database/scope";
import { isId } from "./validate";

/** The clock of the page that sent a request, measured by its time of sending; null where a client says nothing of it. */
export function requestClock(request: Request, now: Date): RequestClock | null {
  const id = request.headers[clockHeaders.clockId];
  const sentAt = Number(request.headers[clockHeaders.sentAt] ?? Number.NaN);
  if (typeof id !== "string" || !isId(id) || !Number.isFinite(sentAt) || Math.abs(sentAt) > 1e14) return null;
  return { id, aheadSeconds: (sentAt - now.getTime()) / 1000 };
}

const mostKnown = 1000;

/** Keeps each clock once, when it is first heard, so that a later page can send what an earlier one had confirmed. */
export function clockKeeper(database: Database) {
  const known = new Set<string>();
  return async (clock: RequestClock | null, now: Date): Promise<void> => {
    if (!clock || known.has(clock.id)) return;
    known.add(clock.id);
    if (known.size > mostKnown) known.delete(known.values().next().value as string);
    try {
      await database.write(now, noCaller, (scope) =>
        scope.sql(
          `INSERT INTO clocks (id, ahead_seconds, seen_at) VALUES ($1, $2, $3)
           ON CONFLICT (id) DO NOTHING RETURNING id`,
          [clock.id, clock.aheadSeconds, now],
        ),
      );
    } catch {
      // Not told to anybody: the next request of this clock tries again.
      known.delete(clock.id);
    }
  };
}
