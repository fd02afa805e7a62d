import type { ReadingRow } from "@pale-cap/contract";
import { pageClock } from "../api/clock";
import { newId } from "../api/newId";
import type { DraftReading } from "./draftReading";

/** Takes a reading back: a further row that supersedes it; the reading itself stays in the record. */
export function withdrawalOf(reading: ReadingRow, personId: string | null): DraftReading {
  const { sequence, clockId, receivedAt, clockAheadSeconds, cameAfterClosing, ...row } = reading;
  return {
    ...row,
    id: newId(),
    value: null,
    coarseCode: null,
    isWithdrawn: true,
    supersedesId: reading.id,
    rawText: null,
    personId,
    measuredAt: pageClock.moment(),
  };
}
